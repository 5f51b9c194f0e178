using Anakyklos.Core.Sheets;

namespace Anakyklos.Web.Drawing;

/// <summary>A map as one page draws it: whole, or the part around what is pointed at with the whole small beside it.</summary>
public sealed class MapDrawing
{
    // Half of what a bold letter takes where most of them are broad: nothing clips the words under a part but its own edge.
    private const double Broad = 1.7;

    // Letters of a part are a little smaller against the drawing than those of the whole: the part is shown twice as large.
    private const double NearLetters = 66;

    /// <summary>A map with what it points at.</summary>
    /// <param name="map">The map.</param>
    /// <param name="what">Id of what it points at; empty for nothing.</param>
    /// <param name="near">Whether the part around it is shown, where that says more.</param>
    /// <param name="say">Says its words in the language of whoever looks: how much room they take is known only then.</param>
    public MapDrawing(VehicleMap map, ThingId what, bool near, Func<string, string> say)
    {
        Map = map;
        What = what;
        MapPoint Said(MapPoint point) => point with { Label = say(point.Label) };
        Spoken = map with
        {
            Blocks = [.. map.Blocks.Select(b => b with { Name = say(b.Name) })],
            Points = [.. map.Points.Select(Said)],
            Belts = [.. map.Belts.Select(b => b with { Pulleys = [.. b.Pulleys.Select(p => p with { Name = say(p.Name) })] })],
        };
        Here = what.IsEmpty ? null : map.Points.FirstOrDefault(p => p.For == what);
        Alikes = [.. map.Points.Where(p => !p.NotFor.IsEmpty && p.NotFor == what)];
        SaidHere = Here is null ? null : Said(Here);
        var alikes = Alikes.Select(Said).ToList();
        if (near && MapWindow.Near(map, Here, Alikes) is { } part)
        {
            (Window, IsNear, Scale) = (part, true, part.Width / NearLetters);
            Names = new(Spoken, SaidHere!, alikes, part, Scale);
            HereLines = Lines(SaidHere!.Label, Broad);
            AlikeLines = [.. alikes.SelectMany(a => Lines($"× {a.Label}", MapNames.Letter))];
        }
        else
        {
            (Window, IsNear, Scale) = (MapWindow.Whole(map), false, 1);
            Names = new(Spoken, SaidHere, alikes);
            HereLines = [];
            AlikeLines = [.. alikes.Select(a => $"× {a.Label}")];
        }
    }

    /// <summary>The map.</summary>
    public VehicleMap Map { get; }

    /// <summary>The map with its words as they are said to whoever looks.</summary>
    public VehicleMap Spoken { get; }

    /// <summary>What it points at, its words as they are said to whoever looks; null when the map does not show it.</summary>
    public MapPoint? SaidHere { get; }

    /// <summary>Id of what it points at; empty for nothing.</summary>
    public ThingId What { get; }

    /// <summary>The point of what it points at; null when the map does not show it.</summary>
    public MapPoint? Here { get; }

    /// <summary>What that is mistaken for.</summary>
    public IReadOnlyList<MapPoint> Alikes { get; }

    /// <summary>The part that is shown.</summary>
    public MapWindow Window { get; }

    /// <summary>Whether it is less than the whole.</summary>
    public bool IsNear { get; }

    /// <summary>Size of letters and marks against those of the whole map.</summary>
    public double Scale { get; }

    /// <summary>Where the names of the blocks stand.</summary>
    public MapNames Names { get; }

    /// <summary>The name of what a part points at, in lines under it; none for a whole map, which writes it where it is.</summary>
    public IReadOnlyList<string> HereLines { get; }

    /// <summary>What it is mistaken for, in lines under the drawing.</summary>
    public IReadOnlyList<string> AlikeLines { get; }

    /// <summary>Height of the words under the drawing.</summary>
    public double Under => (HereLines.Count + AlikeLines.Count) * 8 * Scale + (IsNear ? 2 * Scale : 0);

    /// <summary>Foot of a line of words under the drawing.</summary>
    /// <param name="row">Which, from 0, those of what is pointed at first.</param>
    public double Row(int row) => Window.Foot + (IsNear ? (row * 8 + 7) * Scale : row * 8 + 4);

    /// <summary>Where the front is, in words: a part of a map does not show its edges.</summary>
    public string Front => Map.Front switch
    {
        Facing.Up => "front up",
        Facing.Down => "front down",
        Facing.Left => "front left",
        Facing.Right => "front right",
        _ => "",
    };

    // As few lines as there is room for, all of about the same length.
    private List<string> Lines(string words, double half)
    {
        var most = (int)(Window.Width / (2 * half * Scale));
        var fewest = Broken(words, most).Count;
        return Enumerable.Range(1, most).Select(n => Broken(words, n))
            .FirstOrDefault(l => l.Count <= fewest && l.All(x => x.Length <= most)) ?? Broken(words, most);
    }

    private static List<string> Broken(string words, int most)
    {
        var lines = new List<string>();
        foreach (var word in words.Split(' '))
        {
            if (lines.Count > 0 && lines[^1].Length + 1 + word.Length <= most)
                lines[^1] += " " + word;
            else
                lines.Add(word);
        }
        return lines;
    }
}
