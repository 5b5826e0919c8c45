import { Component } from '@angular/core';
@Component({ selector: 'q-crane', standalone: true, template: '<p>Crane</p>' })
export class Crane {}
