import { Component } from '@angular/core';
@Component({ selector: 'app-flow', template: '<p>flow</p>' }) export class FlowComponent {}
