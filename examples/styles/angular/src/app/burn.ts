import { Component } from '@angular/core';

@Component({ selector: 'app-burn', template: '<p>burn</p>' })
export class Burn {}
