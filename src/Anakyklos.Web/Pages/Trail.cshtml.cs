using Anakyklos.Desk;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Anakyklos.Web.Pages;

/// <summary>Who came in and what was changed, for the lead.</summary>
public sealed class TrailModel(TrailDesk desk) : PageModel
{
    public IReadOnlyList<TrailRow> Rows { get; private set; } = [];

    public bool IsMore { get; private set; }

    public void OnGet(long? before) => (Rows, IsMore) = desk.Read(before);
}
