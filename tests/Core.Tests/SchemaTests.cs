using Anakyklos.Core.Sheets;
using NJsonSchema;

namespace Anakyklos.Core.Tests;

public class SchemaTests
{
    private static readonly string Path = System.IO.Path.Combine(AppContext.BaseDirectory, "model-sheet.schema.json");

    [Fact]
    public async Task The_published_schema_accepts_the_demo_sheet()
    {
        var schema = await JsonSchema.FromFileAsync(Path);
        Assert.Empty(schema.Validate(Workbench.SheetText));
    }

    [Theory]
    [InlineData("\"revision\": 12", "\"revision\": 0")]
    [InlineData("\"kind\": \"drain\"", "\"kind\": \"spill\"")]
    [InlineData("\"takes\": \"7 min\"", "\"takes\": \"soon\"")]
    [InlineData("\"tolerance\": {", "\"tolerances\": {")]
    [InlineData("\"make\": \"Tarn\"", "\"make\": \"Tarn\", \"maker\": \"Tarn\"")]
    [InlineData("\"tooMuch\": \"lead-decides\"", "\"tooMuch\": \"shrug\"")]
    public async Task Schema_and_reader_refuse_the_same_shapes(string old, string @new)
    {
        var broken = Workbench.SheetText.Replace(old, @new);
        var schema = await JsonSchema.FromFileAsync(Path);
        Assert.NotEmpty(schema.Validate(broken));
        Assert.NotEmpty(SheetReader.Read(broken).Errors);
    }

    [Fact]
    public async Task The_schema_knows_every_kind_of_step()
    {
        var schema = await JsonSchema.FromFileAsync(Path);
        var kinds = schema.Definitions["step"].Properties["kind"].Enumeration.Select(e => e!.ToString());
        Assert.Equal(StepKinds.Words, kinds.Order());
    }
}
