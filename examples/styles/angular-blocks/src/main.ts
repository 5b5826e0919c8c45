import { bootstrapApplication } from '@angular/platform-browser';
import { provideRouter } from '@angular/router';
import { Root } from './app/root';
import { routes } from './app/routes';
bootstrapApplication(Root, { providers: [provideRouter(routes)] });
