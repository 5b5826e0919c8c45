import { Component } from '@angular/core';

@Component({ selector: 'app-lost', template: '<p>lost</p>' })
export class Lost {}
