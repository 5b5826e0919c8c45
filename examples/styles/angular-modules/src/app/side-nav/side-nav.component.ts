import { Component, EventEmitter, Output } from '@angular/core';
@Component({ selector: 'app-side-nav', template: '<nav (click)="closed.emit()">nav</nav>' })
export class SideNavComponent { @Output() closed = new EventEmitter<void>(); }
