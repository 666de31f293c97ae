using Wexel.Core;
using Wexel.Data.Model;

namespace Wexel.Server.Shelves;

/// <summary>What else has to be kept for outlets of a kind, such as a feed's artwork; a kind that needs nothing has none.</summary>
internal interface IOutletCare
{
    /// <summary>The code of the kind.</summary>
    string Kind { get; }

    /// <summary>Why an outlet cannot be saved so, or null. Nothing is changed yet.</summary>
    /// <param name="outlet">The outlet as it is.</param>
    /// <param name="name">What it is to be called.</param>
    /// <param name="settings">The settings that it is to have.</param>
    /// <param name="cancel">Stops it.</param>
    Task<Problem?> RefusalAsync(Outlet outlet, string name, string settings, CancellationToken cancel);

    /// <summary>An outlet was added, or has other settings; what is written into the database is saved with it.</summary>
    Task SavingAsync(Outlet outlet, CancellationToken cancel);

    /// <summary>The house's mark is another, or gone.</summary>
    Task HouseChangedAsync(CancellationToken cancel);
}
