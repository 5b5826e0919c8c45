import { Component } from '@angular/core';
@Component({ selector: 'q-blast', standalone: true, template: '<p>Blast</p>' })
export class Blast {}
