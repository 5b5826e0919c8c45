import { Component } from '@angular/core';
import { RouterOutlet } from '@angular/router';
import { Flue } from './flue';

@Component({ selector: 'app-root', imports: [RouterOutlet, Flue], templateUrl: './app.html', styleUrl: './app.css' })
export class App {}
