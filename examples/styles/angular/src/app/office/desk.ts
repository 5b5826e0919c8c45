import { Component } from '@angular/core';

@Component({ selector: 'app-desk', template: '<p>desk</p>' })
export class Desk {}
