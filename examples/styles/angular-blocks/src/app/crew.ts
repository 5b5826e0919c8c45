import { Component } from '@angular/core';
@Component({ selector: 'q-crew', standalone: true, template: '<p>Crew</p>' })
export class Crew {}
