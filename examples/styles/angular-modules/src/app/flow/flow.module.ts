import { NgModule } from '@angular/core';
import { RouterModule } from '@angular/router';
import { FlowComponent } from './flow.component';
@NgModule({ declarations: [FlowComponent], imports: [RouterModule.forChild([{ path: '', component: FlowComponent }, { path: ':id/detail', component: FlowComponent }])] })
export class FlowModule {}
