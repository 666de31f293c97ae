using Microsoft.AspNetCore.Components;
using Microsoft.AspNetCore.Components.Web;

namespace Wexel.Server.Mailing;

/// <summary>Writes mails in HTML by Razor components.</summary>
internal sealed class RazorMails(IServiceProvider services, ILoggerFactory logs)
{
    internal async Task<string> RenderAsync<T>(Dictionary<string, object?> parameters)
        where T : IComponent
    {
        await using var renderer = new HtmlRenderer(services, logs);
        return "<!doctype html>\n"
            + await renderer.Dispatcher.InvokeAsync(async () =>
                (await renderer.RenderComponentAsync<T>(ParameterView.FromDictionary(parameters))).ToHtmlString()
            );
    }
}
