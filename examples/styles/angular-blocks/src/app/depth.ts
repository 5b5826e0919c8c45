import { Component } from '@angular/core';
@Component({ selector: 'q-depth', standalone: true, template: '<p>Depth</p>' })
export class Depth {}
