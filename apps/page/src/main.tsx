import { render } from 'preact';
import { bundleTies } from './looking';
import { Page } from './page';

const root = document.getElementById('page')!;
root.textContent = '';
render(<Page />, root);
bundleTies();
