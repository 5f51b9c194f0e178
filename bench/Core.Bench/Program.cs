using Anakyklos.Core.Cards;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Planning;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Tightening;
using BenchmarkDotNet.Attributes;
using BenchmarkDotNet.Running;

BenchmarkSwitcher.FromTypes([typeof(Anakyklos.Bench.CardBench), typeof(Anakyklos.Bench.FleetBench),
    typeof(Anakyklos.Bench.FluidBench), typeof(Anakyklos.Bench.TorqueBench)]).Run(args);

namespace Anakyklos.Bench
{
    /// <summary>The core alone: rebuilding a card, one step of it, one reading.</summary>
    [ShortRunJob]
    [MemoryDiagnoser]
    public class CardBench
    {
        private static readonly Person Iona = new("iona", "Iona R.", Role.Technician);
        private static readonly DateTimeOffset Start = new(2026, 3, 9, 8, 0, 0, TimeSpan.Zero);
        private ModelSheet _sheet = null!;
        private List<Recorded> _events = [];
        private JobCard _card = null!;
        private ToTorque _spec = null!;
        private Typed<Torque> _reading;

        [GlobalSetup]
        public void Setup()
        {
            var root = AppContext.BaseDirectory;
            while (!Directory.Exists(Path.Combine(root, "sheets")))
                root = Path.GetDirectoryName(root)!;
            _sheet = SheetReader.Read(File.ReadAllBytes(Path.Combine(root, "sheets", "tarn-courier-20d.json"))).Sheet!;
            var opened = new CardOpened("HD-07", _sheet.Id, _sheet.Revision, ["engine-oil-and-filter"],
                CardPlanner.Compose(_sheet, ["engine-oil-and-filter"]),
                Quantity<Distance>.Of(148_200, Distance.Kilometre), Use.Harsh, null, new Dictionary<PartId, int>());
            _events = [new(1, Start, Iona, Guid.NewGuid(), opened)];
            for (var seq = 2; seq <= 2000; seq++)
                _events.Add(new(seq, Start.AddSeconds(seq), Iona, Guid.NewGuid(),
                    seq % 3 == 0 ? new FindingNoted("label", FindingGrade.Sound, $"look {seq}")
                    : new StepPutAside("label", $"press {seq}")));
            _card = JobCard.Replay(_sheet, _events);
            _spec = (ToTorque)_sheet.Fasteners["engine-drain-plug"].Tightening.Value;
            _reading = Quantity<Torque>.Read("28 N·m", out _)!.Value;
        }

        [Benchmark]
        public JobCard Rebuild_a_card_from_2000_events() => JobCard.Replay(_sheet, _events);

        [Benchmark]
        public Decision Decide_on_a_step() => _card.Decide(new ConfirmStep("warm-up"), Iona, Start);

        [Benchmark]
        public TorqueVerdict Check_a_reading() => _spec.Judge(_reading);

        [Benchmark]
        public Typed<Torque>? Read_a_typed_torque() => Quantity<Torque>.Read("28 ft-lb", out _);
    }
}
