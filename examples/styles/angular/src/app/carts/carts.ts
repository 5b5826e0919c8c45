import { Component } from '@angular/core';

@Component({ selector: 'app-carts', template: '<p>carts</p>' })
export class Carts {}
