import { NgModule } from '@angular/core';
import { BrowserModule } from '@angular/platform-browser';
import { AppRoutingModule } from './app-routing.module';
import { AppComponent } from './app.component';
import { SideNavComponent } from './side-nav/side-nav.component';
import { GaugeComponent } from './gauge/gauge.component';
import { GaugeDialogComponent } from './gauge/gauge-dialog.component';
import { HomeComponent } from './home/home.component';
@NgModule({ declarations: [AppComponent, SideNavComponent, GaugeComponent, GaugeDialogComponent, HomeComponent], imports: [BrowserModule, AppRoutingModule], bootstrap: [AppComponent] })
export class AppModule {}
