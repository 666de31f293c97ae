using System.Collections.Concurrent;
using System.Reflection;

namespace Wexel.Core.Placing;

/// <summary>Something that is done with every list of placed things that a document has.</summary>
public interface IPlacedWork
{
    /// <summary>Gives what a document is to have of a kind.</summary>
    /// <param name="kind">The kind.</param>
    /// <param name="list">Reads the list of that kind out of a document.</param>
    IReadOnlyList<T> Do<T>(PlacedKind<T> kind, Func<object, IReadOnlyList<T>> list)
        where T : class, IPlaced<T>;
}

/// <summary>
/// The lists of placed things that a document has. A property of <c>IReadOnlyList&lt;T&gt;</c> whose <c>T</c> is placed is the whole
/// registration of a kind: everything that is done with placed things goes over those properties, in the order of the kinds' names.
/// </summary>
public static class PlacedLists
{
    private static readonly ConcurrentDictionary<Type, IReadOnlyList<Property>> Found = new();

    /// <summary>Reads every list of a document.</summary>
    public static void Read(object document, IPlacedWork work)
    {
        foreach (var property in Properties(document.GetType()))
            property.Do(work);
    }

    /// <summary>Sets every list of a document to what is given for it.</summary>
    /// <param name="document">A new document that nobody else has yet.</param>
    /// <param name="work">Gives what it is to have.</param>
    /// <returns>The same document.</returns>
    public static T Set<T>(T document, IPlacedWork work)
        where T : class
    {
        foreach (var property in Properties(document.GetType()))
            property.Set(document, property.Do(work));
        return document;
    }

    private static IReadOnlyList<Property> Properties(Type document) =>
        Found.GetOrAdd(document, type => [.. type.GetProperties().Select(Property.Find).OfType<Property>().OrderBy(p => p.Name, StringComparer.Ordinal)]);

    private abstract class Property(PropertyInfo info)
    {
        internal abstract string Name { get; }

        protected PropertyInfo Info => info;

        internal static Property? Find(PropertyInfo info) =>
            info.PropertyType is { IsGenericType: true } list
            && list.GetGenericTypeDefinition() == typeof(IReadOnlyList<>)
            && list.GetGenericArguments()[0] is var thing
            && typeof(IPlaced).IsAssignableFrom(thing)
            && thing.IsClass
                ? (Property)Activator.CreateInstance(typeof(Property<>).MakeGenericType(thing), info.DeclaringType!.GetProperty(info.Name))!
                : null;

        internal abstract object Do(IPlacedWork work);

        internal void Set(object document, object list) => info.SetValue(document, list);
    }

    private sealed class Property<T>(PropertyInfo info) : Property(info)
        where T : class, IPlaced<T>
    {
        internal override string Name => T.Kind.Name;

        internal override object Do(IPlacedWork work) => work.Do(T.Kind, document => (IReadOnlyList<T>)Info.GetValue(document)!);
    }
}
