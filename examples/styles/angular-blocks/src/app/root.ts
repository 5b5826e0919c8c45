import { Component } from '@angular/core';
import { RouterOutlet } from '@angular/router';
import { TopBar } from './top-bar';
@Component({ selector: 'q-root', standalone: true, imports: [RouterOutlet, TopBar], template: '<q-top-bar></q-top-bar><router-outlet></router-outlet>' })
export class Root {}
