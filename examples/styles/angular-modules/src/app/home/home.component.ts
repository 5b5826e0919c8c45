import { Component } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { GaugeDialogComponent } from '../gauge/gauge-dialog.component';
@Component({ selector: 'app-home', templateUrl: './home.component.html' })
export class HomeComponent {
  rows$ = this.api.rows();
  level: any;
  constructor(private dialog: MatDialog, private api: Api) {}
  ngOnInit() { this.api.getLevel().subscribe((l) => (this.level = l)); }
  edit() { this.dialog.open(GaugeDialogComponent, { width: '400px' }); }
}
