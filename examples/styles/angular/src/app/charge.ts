import { Component } from '@angular/core';

@Component({ selector: 'app-charge', template: '<p>charge</p>' })
export class Charge {}
