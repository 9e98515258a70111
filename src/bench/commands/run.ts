import { actualSize, goToStage, showPage, takeTool, toggleSolo } from './desk';
import type { BenchCanvas } from '../canvas/benchCanvas';
import * as lines from './lines';
import { isInking, widen } from './strokes';
import type { Command } from './command';
import { prefer, preferences } from '../state/preferences';
import type { Bench } from '../state/store';

/** Does what a key stands for. What is shown while a key is held is not done here. */
export function runCommand(
  bench: Bench,
  command: Exclude<Command, { do: 'hold' }>,
  canvas: BenchCanvas | null,
  showKeys: () => void,
): void {
  switch (command.do) {
    case 'tool':
      return takeTool(bench, command.tool);
    case 'stage':
      return goToStage(bench, command.stage);
    case 'switch':
      return prefer({ [command.which]: !preferences.getState()[command.which] });
    case 'toolKey':
      return void canvas?.tool.key(command.key, { shift: false, alt: false });
    case 'order':
      return lines.order(bench, command.move);
    case 'undo':
      return bench.undo();
    case 'redo':
      return bench.redo();
    case 'zoomIn':
      return isInking(bench) ? widen(bench, 1) : canvas?.zoomBy(1.25);
    case 'zoomOut':
      return isInking(bench) ? widen(bench, -1) : canvas?.zoomBy(1 / 1.25);
    case 'fit':
      return showPage(bench);
    case 'actualSize':
      return actualSize(bench);
    case 'chooseAll':
      return lines.chooseAll(bench);
    case 'chooseNone':
      return lines.chooseNone(bench);
    case 'invert':
      return lines.invertChoice(bench);
    case 'alike':
      return lines.chooseAlike(bench);
    case 'duplicate':
      return lines.duplicate(bench);
    case 'group':
      return lines.group(bench);
    case 'ungroup':
      return lines.ungroup(bench);
    case 'join':
      return lines.joinChosen(bench);
    case 'solo':
      return toggleSolo(bench);
    case 'keys':
      return showKeys();
  }
}
