import { Component, signal, inject } from '@angular/core';
import { Blast } from './blast';
import { Survey } from './survey';
import { Depth } from './depth';
import { Crane } from './crane';
import { Crew } from './crew';
import { Stone } from './stone';
import { Rain } from './rain';
import { Session } from './session';
@Component({
  selector: 'q-pit', standalone: true, imports: [Blast, Survey, Depth, Crane, Crew, Stone, Rain],
  templateUrl: './pit.html', styleUrl: './pit.less',
})
export class Pit {
  survey = signal(false);
  tab = 'depth';
  session = inject(Session);
  stone: any;
  async ngOnInit() { this.stone = await fetchStone(); }
  openCrane() { this.tab = 'crane'; }
}
