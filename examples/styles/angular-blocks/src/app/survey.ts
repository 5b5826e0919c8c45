import { Component } from '@angular/core';
@Component({ selector: 'q-survey', standalone: true, template: '<p>Survey</p>' })
export class Survey {}
