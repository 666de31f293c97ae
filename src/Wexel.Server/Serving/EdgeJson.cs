using System.Text.Json;
using System.Text.Json.Serialization.Metadata;
using Wexel.Core.Documents;

namespace Wexel.Server.Serving;

/// <summary>JSON as it comes from outside: what must be said is said, nothing is null that may not be, and every text is one.</summary>
internal static class EdgeJson
{
    internal static void Configure(JsonSerializerOptions options)
    {
        WexelJson.Configure(options);
        options.Converters.Add(new PlainTextConverter());
        options.RespectNullableAnnotations = true;
        options.RespectRequiredConstructorParameters = true;
        options.TypeInfoResolverChain.Clear();
        options.TypeInfoResolverChain.Add(new DefaultJsonTypeInfoResolver().WithAddedModifier(MayBeLeftOut).WithAddedModifier(HoldsNoNull));
    }

    /// <summary>What may be null may be left out.</summary>
    private static void MayBeLeftOut(JsonTypeInfo type)
    {
        foreach (
            var property in type.Properties.Where(p =>
                p.IsRequired && (p.IsSetNullable || p.AssociatedParameter?.IsNullable == true || Nullable.GetUnderlyingType(p.PropertyType) is not null)
            )
        )
            property.IsRequired = false;
    }

    /// <summary>A list has no holes.</summary>
    private static void HoldsNoNull(JsonTypeInfo type)
    {
        if (type.Kind == JsonTypeInfoKind.Enumerable && type.ElementType is { IsValueType: false })
        {
            type.OnDeserialized = list =>
            {
                if (((System.Collections.IEnumerable)list).Cast<object?>().Contains(null))
                    throw new JsonException("A list holds null.");
            };
        }
    }
}
