import { Component } from '@angular/core';
@Component({ selector: 'q-rain', standalone: true, template: '<p>Rain</p>' })
export class Rain {}
