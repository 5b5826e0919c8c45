import { Component, Input } from '@angular/core';
@Component({ selector: 'app-gauge', template: '<p>{{ value }}</p>' })
export class GaugeComponent { @Input() value = 0; }
