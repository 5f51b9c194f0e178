// Takes the gates of the card away one by one, in a copy, and says what harm the simulated vehicle then came to.
// node bench/oracle/run.mjs [walks] [words]: prints a row a gate, of those whose name has the words (an expression); no walk sees it
// where other gates stand in for it.
import { execFileSync, spawnSync } from 'node:child_process';
import { cpSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

const root = join(import.meta.dirname, '../..');
const walks = process.argv[2] ?? '600';
const words = process.argv[3] ?? '';
const GATES = 'src/Anakyklos.Core/Cards/Gates.cs';
const LOOKS = 'src/Anakyklos.Core/Cards/LiftReadiness.cs';
const COACHES = 'src/Anakyklos.Core/Coaches';
const BENDS = [
  [
    'started with too little oil',
    GATES,
    'fluid.Poured < safe)',
    'false && fluid.Poured < safe)',
  ],
  [
    'started unprimed',
    GATES,
    'Remaining.Where(s => s.Traits.Primes &&',
    'Remaining.Where(s => false && s.Traits.Primes &&',
  ],
  [
    'started with a joint open',
    GATES,
    'in OpenPlugs("Tighten it before the engine runs."))',
    'in OpenPlugs("").Take(0))',
  ],
  [
    'started with a cap off',
    GATES,
    '(a.ClosedToRun || a.Intake) && HasOpen(a)',
    'false && (a.ClosedToRun || a.Intake) && HasOpen(a)',
  ],
  [
    'driven with something open',
    GATES,
    'in BeforeDriving())',
    'in BeforeDriving().Take(0))',
  ],
  [
    'undone while hot',
    GATES,
    'if (!step.Cold || now is not { } at',
    'if (true || !step.Cold || now is not { } at',
  ],
  [
    'undone while hot as it came in',
    GATES,
    '(_state.IsFeltCold ? null : _history[0].At)',
    '(DateTimeOffset?)null',
  ],
  [
    'primed or reset without current',
    GATES,
    'a.CutsCurrent && HasOpen(a)',
    'false && HasOpen(a)',
  ],
  [
    'slackened from the ground',
    `${COACHES}/Tightening/TorqueCoach.cs`,
    'at.Card.BeforeSettling(at.Step) is { Count: > 0 } reasons',
    'at.Card.BeforeSettling(at.Step) is { Count: > 999 } reasons',
  ],
  [
    'warmed with something lying above',
    `${COACHES}/Running/WarmCoach.cs`,
    'card.ToolsAbove.Count > 0',
    'card.ToolsAbove.Count > 999',
  ],
  [
    'let out into a pan without room',
    'src/Anakyklos.Core/Kit/PanInUse.cs',
    'return Filled + comes <= Holds &&',
    'return Holds > Quantity<Volume>.Zero &&',
  ],
  [
    'a pan emptied while oil runs into it',
    'src/Anakyklos.Core/Cards/Pans.cs',
    '&& HasOpen(f)) is { } plug',
    '&& HasOpen(f) && f.Name.Length == 0) is { } plug',
  ],
  [
    'started on an old look after covers were screwed on',
    LOOKS,
    '&& !access.IsByHand',
    '&& false',
  ],
  [
    'work with the lift elsewhere',
    GATES,
    'if (step.Lift == LiftNeed.Up && !LiftUp)',
    'if (false && !LiftUp)',
  ],
  [
    'work behind what is shut',
    GATES,
    '.Where(a => !HasOpen(a)).Select(a => new Refusal($"The',
    '.Where(a => false && !HasOpen(a)).Select(a => new Refusal($"The',
  ],
  [
    'raised unheld',
    GATES,
    'Where(a => a.HoldsVehicle && !HasOpen(a))',
    'Where(a => false && !HasOpen(a))',
  ],
  [
    'raised on an old look',
    LOOKS,
    'LiftMove.ReadyToRaise => moves || step.IsDriven || step.Place == Place.Cab',
    'LiftMove.ReadyToRaise => false',
  ],
  [
    'raised without a look',
    `${COACHES}/Lifting/RaiseCoach.cs`,
    's.Traits.Sets || s.Traits.Lift == LiftMove.ReadyToRaise',
    'false',
  ],
  [
    'lowered onto an open plug',
    `${COACHES}/Lifting/LowerCoach.cs`,
    'JobCard.IsUnderneath))',
    'f => false))',
  ],
  [
    'lowered without a look',
    `${COACHES}/Lifting/LowerCoach.cs`,
    's => s.Traits.Lift == LiftMove.ReadyToLower',
    's => false',
  ],
  [
    'the pan cleared away under an open plug',
    `${COACHES}/Looking/ClearCoach.cs`,
    'f => JobCard.IsUnderneath(f) &&',
    'f => false &&',
  ],
  [
    'poured onto an open plug',
    `${COACHES}/Filling/PourCoach.cs`,
    'f => IsJointOf(f, id)))',
    'f => false))',
  ],
  [
    'brakes bled from a reservoir that was sucked dry',
    `${COACHES}/Bleeding/BleedCoach.cs`,
    'if (card.Steps.Any(Fills) && !card.Fluid(fluid).Good)',
    'if (false && card.Steps.Any(Fills))',
  ],
  [
    'more strokes than the reservoir holds',
    `${COACHES}/Bleeding/BleedCoach.cs`,
    ': strokes > left ?',
    ': false ?',
  ],
  [
    'primed before what is to be filled is in',
    `${COACHES}/Priming/PrimeCoach.cs`,
    '.. card.Remaining.Where(s => s.Traits.Fits && s.What == step.What)',
    '.. card.Remaining.Where(s => false)',
  ],
  [
    'started with something lying above',
    GATES,
    's => s.Traits.LooksOver, "Nothing may lie loose',
    's => false, "Nothing may lie loose',
  ],
  [
    'started on an old look above',
    LOOKS,
    'look.Traits.LooksOver && WasDone(look)',
    'false',
  ],
  [
    'a level read through a shut plug',
    `${COACHES}/Filling/GaugeCoach.cs`,
    'PourCoach.ShutFillPlugs(card, id, "It is read and filled through it. Open it first.")',
    'PourCoach.ShutFillPlugs(card, id, "").Take(0)',
  ],
  [
    'closed in front of what is open behind it',
    `${COACHES}/Opening/CloseCoach.cs`,
    'card.HasOpen(a) && a.Needs.Contains(access.Id)',
    'false && a.Needs.Contains(access.Id)',
  ],
  [
    'a joint tightened without its seal',
    `${COACHES}/Tightening/TightenCoach.cs`,
    'fastener.Fitted.Where(p => !card.IsFitted(p))',
    'fastener.Fitted.Where(p => false)',
  ],
  [
    'taken away under a raised vehicle',
    `${COACHES}/Opening/CloseCoach.cs`,
    'access.HoldsVehicle && card.LiftUp',
    'false',
  ],
  [
    'lowered on an old look below',
    LOOKS,
    'LiftMove.ReadyToLower => moves || ((step.Lift == LiftNeed.Up || step.Place == Place.Below) && !step.MovesLift)',
    'LiftMove.ReadyToLower => false',
  ],
  [
    'lowered on a look older than a joint tightened without a reading',
    LOOKS,
    '(e as IStepEvent)?.Step ?? ended) is not',
    '(e as IStepEvent)?.Step) is not',
    '35973,41056',
  ],
  [
    'a cover shut before what is reached through it is done again',
    'src/Anakyklos.Core/Composing/StepOrder.cs',
    '|| _ways.Contains(l.Key)',
    '',
    '19166',
  ],
  [
    'warm oil let out at once though something must come before it again',
    'src/Anakyklos.Core/Composing/StepOrder.cs',
    'b => !_after.Reaches(_index[b], _index[s.Closes])',
    'b => true',
    '47649',
  ],
];

const copy = mkdtempSync(join(tmpdir(), 'anakyklos-oracle-'));
const parts = ['src', 'tests', 'sheets', 'stock', 'Directory.Build.props', 'Directory.Packages.props'];
const tracked = execFileSync('git', ['ls-files', ...parts], { cwd: root });
for (const file of tracked.toString().trim().split('\n')) cpSync(join(root, file), join(copy, file), { recursive: true });
console.log('| the gate taken away | what the vehicle came to | walks that saw it |\n| --- | --- | --- |');
for (const [name, file, from, to, seeds] of BENDS.filter(([n]) => new RegExp(words).test(n))) {
  const path = join(copy, file);
  const text = readFileSync(path, 'utf8');
  if (!text.includes(from)) throw new Error(`${file} has no “${from}” any more.`);
  writeFileSync(path, text.replace(from, to));
  const run = spawnSync('dotnet', ['test', 'tests/Simulation.Tests', '-c', 'Release', '-p:TreatWarningsAsErrors=false'], {
    cwd: copy,
    env: { ...process.env, ANAKYKLOS_WALKS: walks, ...(seeds && { ANAKYKLOS_SEEDS: seeds }), DOTNET_CLI_TELEMETRY_OPTOUT: '1' },
    encoding: 'utf8',
    maxBuffer: 1 << 28,
  });
  writeFileSync(path, text);
  const kinds = new Map();
  for (const [, kind] of run.stdout.matchAll(/\}: (\w+): /g)) kinds.set(kind, (kinds.get(kind) ?? 0) + 1);
  const differ = [...run.stdout.matchAll(/The card: /g)].length;
  const stuck = [...run.stdout.matchAll(/Stuck at /g)].length;
  const failed = run.stdout.match(/Failed: +(\d+), Passed/)?.[1] ?? (/error/.test(run.stdout) ? 'does not build' : '0');
  const saw = [...kinds].sort((a, b) => b[1] - a[1]).map(([kind, n]) => `${kind} ${n}`);
  if (differ) saw.push(`the two accounts differ ${differ}`);
  if (stuck) saw.push(`stuck ${stuck}`);
  console.log(`| ${name} | ${saw.join(', ')} | ${failed} |`);
}
