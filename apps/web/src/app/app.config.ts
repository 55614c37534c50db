import { provideHttpClient, withFetch, withInterceptors } from '@angular/common/http';
import {
  ErrorHandler,
  provideBrowserGlobalErrorListeners,
  provideZonelessChangeDetection,
  type ApplicationConfig,
} from '@angular/core';
import {
  MAT_FORM_FIELD_DEFAULT_OPTIONS,
  type MatFormFieldDefaultOptions,
} from '@angular/material/form-field';
import { MAT_TOOLTIP_DEFAULT_OPTIONS, type MatTooltipDefaultOptions } from '@angular/material/tooltip';
import {
  provideRouter,
  TitleStrategy,
  withComponentInputBinding,
  withNavigationErrorHandler,
} from '@angular/router';
import { provideEffects } from '@ngrx/effects';
import { provideStore } from '@ngrx/store';
import { keptAlive } from './api/kept-alive';
import { notLoaded, routes } from './app.routes';
import { PageTitles } from './shell/page-titles';
import { SaidErrors } from './shell/said-errors';
import { StudiesEffects } from './store/studies.effects';
import { studies } from './store/studies.reducer';
import { WorkEffects } from './store/work.effects';
import { work } from './store/work.reducer';

export const appConfig: ApplicationConfig = {
  providers: [
    provideBrowserGlobalErrorListeners(),
    { provide: ErrorHandler, useClass: SaidErrors },
    provideZonelessChangeDetection(),
    provideHttpClient(withFetch(), withInterceptors([keptAlive])),
    provideRouter(routes, withComponentInputBinding(), withNavigationErrorHandler(notLoaded)),
    { provide: TitleStrategy, useClass: PageTitles },
    provideStore({
      [studies.name]: studies.reducer,
      [work.name]: work.reducer,
    }),
    provideEffects(StudiesEffects, WorkEffects),
    {
      provide: MAT_FORM_FIELD_DEFAULT_OPTIONS,
      useValue: { appearance: 'outline', subscriptSizing: 'dynamic' } satisfies MatFormFieldDefaultOptions,
    },
    {
      provide: MAT_TOOLTIP_DEFAULT_OPTIONS,
      useValue: {
        showDelay: 400,
        hideDelay: 0,
        touchendHideDelay: 1500,
        position: 'below',
      } satisfies MatTooltipDefaultOptions,
    },
  ],
};
