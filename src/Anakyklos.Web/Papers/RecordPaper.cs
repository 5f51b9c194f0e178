using Anakyklos.Core.Cards;
using Anakyklos.Core.Laboratory;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Records;
using Anakyklos.Core.Wording;
using Anakyklos.Paper;
using Anakyklos.Web.Coaches;
using Anakyklos.Web.Coaches.Filling;
using Anakyklos.Web.Hosting;
using Anakyklos.Web.Wording;

namespace Anakyklos.Web.Papers;

/// <summary>Whose record it is, and how to tell it.</summary>
/// <param name="Workshop">Who wrote it.</param>
/// <param name="Number">The number of its card there.</param>
/// <param name="Hash">The hash of its last event.</param>
/// <param name="SignedHash">The hash of its signature; empty while it is not signed.</param>
/// <param name="Local">Tells a time as the workshop's clock shows it.</param>
/// <param name="Photo">Finds a picture by its id; null for one that is not here.</param>
public sealed record RecordSource(string Workshop, CardNumber Number, string Hash, string SignedHash,
    Func<DateTimeOffset, DateTimeOffset> Local, Func<string, byte[]?> Photo);

/// <summary>The record of a card on paper: what its page says, page by page, with a plate and a number on each.</summary>
public sealed class RecordPaper
{
    private readonly JobCard _card;
    private readonly ServiceRecord _record;
    private readonly RecordSource _from;
    private readonly Viewer _reader;
    private readonly PaperFlow _paper;

    private RecordPaper(JobCard card, RecordSource from, Viewer reader, DateTimeOffset now, Func<string, string> say)
    {
        (_card, _from, _reader) = (card, from, reader);
        _record = ServiceRecord.Of(card);
        _paper = new($"Service record, {from.Workshop}", $"{card.Opened.Plate}  {card.Sheet.FullName}", $"Card {from.Number}", now, say);
    }

    /// <summary>The record as a PDF.</summary>
    /// <param name="card">The card, signed or not.</param>
    /// <param name="from">Whose it is.</param>
    /// <param name="reader">In whose units.</param>
    /// <param name="now">When it is made.</param>
    /// <param name="say">Says a text in the language of whoever reads it.</param>
    public static byte[] Of(JobCard card, RecordSource from, Viewer reader, DateTimeOffset now, Func<string, string> say)
    {
        var record = new RecordPaper(card, from, reader, now, say);
        using var paper = record._paper;
        record.Head();
        record.Strayed();
        record.Ruled();
        record.Seen();
        record.Tightened();
        record.Filled();
        record.Fitted();
        record.Inspected();
        record.NotDone();
        record.Due();
        record.Signatures();
        return paper.Save();
    }

    private string When(DateTimeOffset at) => _from.Local(at).ToString("d MMM yyyy, HH:mm");

    private void Head()
    {
        var opened = _card.Opened;
        List<(PaperLine, double)> lines =
        [
            (new(opened.Plate, PaperFace.Bold, IsOwn: true), 22), (new(_card.Sheet.FullName, PaperFace.Bold, IsOwn: true), 12),
            ($"{CardLine.Jobs(_card)} at {RecordWords.Odometer(opened.OdometerAsRead, _reader.DistanceUnit)}"
                + (opened.ReadBy is { } tool ? $", read by {tool}" : ""), 10),
            .. Beside(Amendable.Odometer).Concat(Beside(Amendable.Whole)).Select(l => (l, 9.0)),
            (_card.Signature is { } s ? $"Signed by {s.By.Name}, {When(s.At)}"
                : _card.Voided is { } v ? $"Made void by {v.By.Name}, {When(v.At)}: {((CardVoided)v.Event).Reason}"
                : new PaperLine("Not signed yet.", PaperFace.Bold), 10),
        ];
        _paper.Beside(104, Ring, lines);
    }

    private void Ring(PaperBrush brush)
    {
        var steps = _card.Steps;
        if (_card.Signature is not null)
        {
            brush.Arc(92, 0, 359.9, 16, true);
            brush.Lines(12, (92, 122), (112, 142), (150, 100));
            return;
        }
        brush.Arc(92, 0, 359.9, 16, false);
        var each = 360.0 / steps.Count;
        for (var i = 0; i < steps.Count; i++)
            if (_card.State(steps[i].Id).Status is StepStatus.Done or StepStatus.LeftOut)
                brush.Arc(92, i * each, (i + 1) * each, 16, true);
        foreach (var item in _card.Open)
        {
            var turn = (steps.ToList().FindIndex(s => s.Id == item.By) + 0.5) * each / 180 * Math.PI;
            brush.Open(120 + 92 * Math.Sin(turn), 120 - 92 * Math.Cos(turn), 9);
        }
    }

    private IEnumerable<PaperLine> Beside(string of) => _record.AmendedOf(of)
        .Select(a => new PaperLine($"Amended: {a.Words} ({a.By}, {When(a.At)})", PaperFace.Bold));

    private void Strayed()
    {
        List<IReadOnlyList<IReadOnlyList<PaperLine>>> rows =
        [
            .. _record.Strayed.Select(l => Row([new(l.What, PaperFace.Bold), .. Beside(Amendable.Event(l.Seq))], [PaperLine.Own(l.Reason)],
                [RecordWords.Names(l), new(When(l.At), IsSoft: true)])),
            .. _record.Fitted.Where(f => f.StoodInFor is not null).Select(f => Row([new($"{f.Name}: {f.Number}", PaperFace.Bold)],
                [$"stood in for {f.StoodInFor}"], [])),
            .. (_record.Unusual ?? []).Select(u => Row([CardLine.Of(_card, _card.History[u.Seq - 1])], [LiftWords.Strayed(u.How)],
                [PaperLine.Own(u.By), new(When(u.At), IsSoft: true)])),
        ];
        _paper.Heading("What strayed");
        if (rows.Count == 0)
            _paper.Text("Nothing.");
        else
            _paper.Table([new("What", 5), new("Why", 4), new("Who", 3)], rows);
    }

    private void Ruled()
    {
        if (_record.Rulings is not { } rulings)
            return;
        _paper.Heading("Where sources disagree");
        _paper.Table([new("Used", 5), new("Others say", 4), new("Ruled by", 3)], rulings.Select(r =>
            Row([new(r.Of, PaperFace.Bold), r.Holds], [r.Others], [PaperLine.Own(r.By), PaperLine.Own(r.Reason)])));
    }

    private void Seen()
    {
        if (_record.Seen.Count == 0)
            return;
        _paper.Heading("Seen");
        foreach (var line in _record.Seen)
        {
            var decided = line.Decided is { } d ? $"; {d.By}: {(d.Mended ? "mended" : "may go as it is")}, {d.Words}" : "";
            _paper.Table([new("", 2), new("", 7), new("", 3)], [Row([new(Upper(LiftWords.Grade(line.Grade)), PaperFace.Bold)],
                [line.Text + decided, .. Beside(line.Of)], [PaperLine.Own(line.By)])]);
            if (line.Photo is { } id && _from.Photo(id) is { } photo)
                _paper.Picture(photo);
        }
    }

    private void Tightened()
    {
        var lines = _record.Tightened.Where(t => t.State != RecordState.NotYet || _card.Ended is null).ToList();
        if (lines.Count == 0)
            return;
        var unit = _reader.TorqueUnits[0];
        _paper.Heading("Tightened");
        _paper.Table([new("Fastener", 4), new("Reading", 5), new("Book", 3)], lines.Select(l =>
            Row([l.Name + (l.IsCheck ? ", checked" : ""), .. Beside(l.Of)], [RecordWords.Reading(l, unit)],
                [new(RecordWords.Book(l, unit), IsSoft: true)])));
    }

    private void Filled()
    {
        if (_record.Filled.Count == 0)
            return;
        var unit = _reader.VolumeUnits[0];
        _paper.Heading("Filled");
        _paper.Table([new("Fluid", 6), new("In", 2), new("Book", 2), new("Level", 2)], _record.Filled.Select(l =>
        {
            List<PaperLine> about = [new(l.Name, PaperFace.Bold)];
            void Say(string text)
            {
                if (text.Length > 0)
                    about.Add(text);
            }
            if (l.Product.Length > 0)
                about.Add(PaperLine.Own(l.Product));
            Say(l.From is { } from ? CanWords.From(from, unit) + RecordWords.Metered(l, unit) : "");
            Say(l.InPart is { } part ? $"{part.Print(unit)} of it in the filter before it was fitted" : "");
            Say(l.BeforeRun is { } stood ? $"Read before the first run: {stood}" : "");
            Say(l.CameOut is { } came ? $"{came.Print(unit)} came out" : "");
            Say(l.Rinsed is { } rinsed ? $"Rinsed with {rinsed.Print(unit)} first" : "");
            Say(l.Found is { } found ? $"Found {found}" + (l.Use is { } use
                ? $"; {BalanceWords.Of(use, unit, _reader.DistanceUnit)}" : "") : "");
            about.AddRange(Beside(l.Of));
            return Row(about, [$"{l.In.Print(unit)}"], [new($"{l.Book.Print(unit)}", IsSoft: true)], [RecordWords.Stands(l)]);
        }));
        if (_record.Filled.Select(f => f.School).FirstOrDefault(s => s is not null) is { } school)
            _paper.Text(new($"Filled {LiftWords.School(school)}{(_record.Filled.Any(f => f.IsInOne)
                ? ", what was missing in one pour" : "")}, as this workshop does.", IsSoft: true));
        if (_record.Drained is { } drained)
            _paper.Text(new($"{LiftWords.School(drained)}, as this workshop does.", IsSoft: true));
        foreach (var line in _record.Samples ?? [])
            _paper.Text(line.Number is { } n ? $"A sample of the {Words.Low(line.Fluid)} was taken, {SampleCode.Of(_from.Number, n)}"
                : $"A sample of the {Words.Low(line.Fluid)} was asked for and not taken.");
    }

    private void Fitted()
    {
        if (_record.Fitted.Count == 0)
            return;
        _paper.Heading("Fitted");
        _paper.Table([new("Part", 6), new("Number", 6)], _record.Fitted.Select(l =>
            Row([l.Name, .. Beside(l.Of)], [new(RecordWords.Number(l), PaperFace.Mono)])));
    }

    private void Inspected()
    {
        foreach (var list in (_record.Inspected ?? []).GroupBy(l => l.Step))
        {
            _paper.Heading(list.Key);
            _paper.Table([new("Point", 5), new("Found", 4), new("Book", 3)], list.Select(l =>
                Row([l.Name, .. RecordWords.Wears(l, _reader.DistanceUnit) is { Length: > 0 } wears
                    ? [new PaperLine(wears, IsSoft: true)] : Array.Empty<PaperLine>(), .. Beside(l.Of)],
                    [new(RecordWords.Found(l), l.Outcome == PointOutcome.Good ? PaperFace.Plain : PaperFace.Bold)],
                    [new(l.Passes, IsSoft: true)])));
        }
    }

    private void NotDone()
    {
        List<IReadOnlyList<IReadOnlyList<PaperLine>>> rows =
        [
            .. _record.GivenUp.Select(j => Row([new(j.Name, PaperFace.Bold)], [$"given up: {j.Reason}"], [PaperLine.Own(j.By)])),
            .. _record.LeftForLater.Select(j => Row([new(j.Name, PaperFace.Bold)], [$"due, and left: {j.Reason}"], [])),
            .. _record.NotCounted.Select(j => Row([new(j, PaperFace.Bold)],
                ["not counted as done: a step that concerns brakes, steering, wheels or lifting was left out"], [])),
            .. _record.Carried.Select(c => Row([new(c.Stop.Text, PaperFace.Bold)], [$"from card {c.Stop.Card}; "
                + (c.Mended ? "mended on this card" : $"let go by {c.Stop.By}: {c.Stop.Words}")], [])),
        ];
        if (rows.Count == 0)
            return;
        _paper.Heading("Not done, or from before");
        _paper.Table([new("What", 4), new("How it stands", 6), new("Who", 2)], rows);
    }

    private void Due()
    {
        if (_record.Due.Count == 0)
            return;
        _paper.Heading("Due next");
        _paper.Table([new("Job", 6), new("When", 6)], _record.Due.Select(d =>
            Row([d.Name], [LiftWords.Due(d.Next, _reader.DistanceUnit)])));
    }

    private void Signatures()
    {
        List<IReadOnlyList<IReadOnlyList<PaperLine>>> rows =
        [
            Row(["Worked by"], [PaperLine.Own(string.Join(", ", _record.WorkedBy ?? []))], []),
            .. _card.History.Where(h => h.Event is Countersigned or StoodBeside or StopDecided or CarriedMended or VoidAsked or CardVoided
                or Signed or Amended).Select(h => Row([Signs(h)], [new(h.By.Name, PaperFace.Bold, IsOwn: true)],
                [When(h.At)])),
        ];
        _paper.Heading("Signatures");
        _paper.Table([new("What", 6), new("Name", 3), new("When", 3)], rows);
        if (_from.SignedHash.Length > 0)
            _paper.Text(new($"Hash of the signed card: {_from.SignedHash}", PaperFace.Mono), 7);
        if (_from.Hash != _from.SignedHash)
            _paper.Text(new($"Hash with what came after: {_from.Hash}", PaperFace.Mono), 7);
        _paper.Text(new($"Worked by model sheet {_card.Sheet.Id}, revision {_card.Sheet.Revision}. The maker's manual, local rules and "
            + "licensed practice come first; this record does not replace them.", IsSoft: true));
    }

    private string Signs(Recorded h) => h.Event switch
    {
        Signed => "Signed",
        Countersigned c => $"Countersigned: {CardLine.Of(_card, _card.History[c.Of - 1])}",
        _ => CardLine.Of(_card, h),
    };

    private static string Upper(string words) => LiftWords.Upper(words);

    private static IReadOnlyList<IReadOnlyList<PaperLine>> Row(params IReadOnlyList<PaperLine>[] cells) => cells;
}
