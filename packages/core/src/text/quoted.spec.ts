import { htmlToText } from './html';
import { partMail } from './quoted';

const lines = (...all: string[]): string => all.join('\n');

describe('partMail', () => {
  it('keeps answers that stand between quoted lines', () => {
    const { own, quoted } = partMail(lines('> One?', 'Yes.', '> Two?', 'No.'));
    expect(own).toBe('Yes.\nNo.');
    expect(quoted).toBe('> One?\n> Two?');
  });

  it.each([
    'On Mon, 30 Mar 2026 at 10:00, Ben <ben@quay.example> wrote:',
    'Am 30.03.2026 um 10:00 schrieb Ben:',
    'Le lun. 30 mars 2026, Ben a écrit :',
    'El lun, 30 mar 2026, Ben escribió:',
  ])('takes “%s” for a part of what is quoted', (attribution) => {
    expect(partMail(lines('Fine.', '', attribution, '> text')).own).toBe('Fine.');
  });

  it('takes an attribution over two lines', () => {
    expect(
      partMail(
        lines(
          'Fine.',
          'On Mon, 30 Mar 2026 at 10:00, Ben Harbour',
          '<ben@quay.example> wrote:',
          '',
          '> text',
        ),
      ).own,
    ).toBe('Fine.');
  });

  it('leaves a sentence alone that only looks like one', () => {
    const text = 'On Monday the council wrote:\nwe will dim the lamps.';
    expect(partMail(text).own).toBe(text);
  });

  it('takes everything below a mark of an original message', () => {
    const { own, quoted } = partMail(
      lines('See below.', '-----Original Message-----', 'From: Ben', '', 'Hello'),
    );
    expect(own).toBe('See below.');
    expect(quoted).toContain('Hello');
  });

  it('cuts the signature (RFC 3676, section 4.3), but not a line of hyphens', () => {
    expect(partMail(lines('Text', '-- ', 'Ann', 'Quay 4'))).toEqual({
      own: 'Text',
      quoted: '',
      signature: 'Ann\nQuay 4',
    });
    expect(partMail(lines('Text', '---', 'more')).own).toBe('Text\n---\nmore');
  });

  it('gives nothing for nothing', () => {
    expect(partMail('')).toEqual({ own: '', quoted: '', signature: '' });
  });
});

describe('htmlToText', () => {
  it.each([
    ['no tags & no entities', 'no tags & no entities'],
    ['<p>one</p><p>two</p>', 'one\ntwo'],
    ['a<br>b<BR/>c', 'a\nb\nc'],
    ['<ul><li>x</li><li>y</li></ul>', 'x\ny'],
    ['&eacute;&#233;&#xe9; &lt;b&gt;', 'ééé <b>'],
    ['<style>p{}</style>t<script>alert(1)</script><!-- c -->', 't'],
    ['1 &lt; 2 and 3 < 4', '1 < 2 and 3 < 4'],
    ['<a href="https://x.example">@<span>ann</span></a>&nbsp;!', '@ann !'],
    ['<head><title>x</title><body>shown', 'shown'],
    ['<p>one</p>\n\n<p>two</p><p> </p><p></p><p>three', 'one\ntwo\n\nthree'],
    ['a &amp;amp; b &#x1F98B; &unknown; &', 'a &amp; b 🦋 &unknown; &'],
    ['<A HREF="a>b">x</A ><b\n>y', 'xy'],
  ])('makes of %j', (html, text) => {
    expect(htmlToText(html)).toBe(text);
  });

  it.each([
    '<!--',
    '<a',
    '<script>',
    '<style',
    '</',
    '&',
    '&#',
    '<b>',
    '<p>\n',
    '<',
    ' \n',
    '<title>x</title',
    '<![CDATA[',
  ])('goes through 100,000 of %j at once', (piece) => {
    expect(htmlToText(`begin ${piece.repeat(100_000)}`)).toMatch(/^begin/);
  });
});
