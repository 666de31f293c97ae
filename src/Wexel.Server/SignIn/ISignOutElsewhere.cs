namespace Wexel.Server.SignIn;

/// <summary>Ends elsewhere what somebody ends here.</summary>
internal interface ISignOutElsewhere
{
    /// <summary>Where the browser goes for that; null where nothing is to be ended elsewhere. Asked for while it is still signed in here.</summary>
    Task<Uri?> NextAsync(HttpContext http);
}
