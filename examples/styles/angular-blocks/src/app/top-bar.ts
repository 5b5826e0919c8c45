import { Component } from '@angular/core';
@Component({ selector: 'q-top-bar', standalone: true, template: '<nav>Quarry</nav>' })
export class TopBar {}
