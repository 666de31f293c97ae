using System.Text.Json;
using Wexel.Core.Documents;

namespace Wexel.Server.Setup;

/// <summary>Reads and writes what is stored as JSON.</summary>
internal static class Json
{
    internal static string Write<T>(T value) => JsonSerializer.Serialize(value, WexelJson.Options);

    internal static T Read<T>(string json) => JsonSerializer.Deserialize<T>(json, WexelJson.Options)!;
}
