import { Component } from '@angular/core';
@Component({ selector: 'app-gauge-dialog', template: '<p>dialog</p>' })
export class GaugeDialogComponent {}
