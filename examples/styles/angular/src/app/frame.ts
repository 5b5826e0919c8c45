import { Component } from '@angular/core';

@Component({ selector: 'app-frame', template: '<p>frame</p>' })
export class Frame {}
