import { Component } from '@angular/core';
@Component({ selector: 'q-cart', standalone: true, template: '<p>Cart</p>' })
export class Cart {}
