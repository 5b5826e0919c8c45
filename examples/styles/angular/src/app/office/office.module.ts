import { NgModule } from '@angular/core';
import { OfficeRoutingModule } from './office-routing.module';

@NgModule({ imports: [OfficeRoutingModule] })
export class OfficeModule {}
