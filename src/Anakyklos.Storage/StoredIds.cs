using System.Data;
using System.Globalization;
using Dapper;

namespace Anakyklos.Storage;

/// <summary>Ids in the file: a text, a card's number as a whole number.</summary>
internal static class StoredIds
{
    /// <summary>Lets rows and parameters carry ids. Doing it again changes nothing.</summary>
    internal static void Register()
    {
        SqlMapper.AddTypeHandler(new OfText<JobId>());
        SqlMapper.AddTypeHandler(new OfText<PersonId>());
        SqlMapper.AddTypeHandler(new OfText<SheetId>());
        SqlMapper.AddTypeHandler(new OfText<StepId>());
        SqlMapper.AddTypeHandler(new OfText<DeviceId>());
        SqlMapper.AddTypeHandler(new OfText<LessonId>());
        SqlMapper.AddTypeHandler(new OfCard());
    }

    private sealed class OfText<TId> : SqlMapper.TypeHandler<TId> where TId : struct, IId<TId>
    {
        public override TId Parse(object value) => TId.Of((string)value);

        public override void SetValue(IDbDataParameter parameter, TId value) => parameter.Value = value.Text;
    }

    private sealed class OfCard : SqlMapper.TypeHandler<CardNumber>
    {
        public override CardNumber Parse(object value) => new(Convert.ToInt64(value, CultureInfo.InvariantCulture));

        public override void SetValue(IDbDataParameter parameter, CardNumber value) => parameter.Value = value.Value;
    }
}
