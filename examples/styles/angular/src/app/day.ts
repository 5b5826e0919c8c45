import { Component } from '@angular/core';

@Component({ selector: 'app-day', template: '<p>day</p>' })
export default class Day {}
