import { NgModule } from '@angular/core';
import { RouterModule, type Routes } from '@angular/router';
import { Desk } from './desk';

const routes: Routes = [{ path: 'desk', component: Desk }];

@NgModule({ imports: [RouterModule.forChild(routes)] })
export class OfficeRoutingModule {}
