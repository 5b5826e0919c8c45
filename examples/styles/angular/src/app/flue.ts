import { Component } from '@angular/core';

@Component({ selector: 'app-flue', template: '<p>Smoke</p>' })
export class Flue {}
