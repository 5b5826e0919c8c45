import { Component } from '@angular/core';
@Component({ selector: 'q-stone', standalone: true, template: '<p>Stone</p>' })
export class Stone {}
