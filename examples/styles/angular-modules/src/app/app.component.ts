import { Component } from '@angular/core';
@Component({ selector: 'app-root', templateUrl: './app.component.html', styleUrls: ['./app.component.scss'] })
export class AppComponent { navOpen = false; toggleNav() { this.navOpen = !this.navOpen; } }
