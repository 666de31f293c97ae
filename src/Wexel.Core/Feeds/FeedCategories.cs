namespace Wexel.Core.Feeds;

/// <summary>The categories that podcast directories sort by: the list that goes with the iTunes podcast namespace (from memory).</summary>
public static class FeedCategories
{
    /// <summary>Each category with its subcategories.</summary>
    public static IReadOnlyDictionary<string, IReadOnlyList<string>> All { get; } =
        new SortedDictionary<string, IReadOnlyList<string>>(StringComparer.Ordinal)
        {
            ["Arts"] = ["Books", "Design", "Fashion & Beauty", "Food", "Performing Arts", "Visual Arts"],
            ["Business"] = ["Careers", "Entrepreneurship", "Investing", "Management", "Marketing", "Non-Profit"],
            ["Comedy"] = ["Comedy Interviews", "Improv", "Stand-Up"],
            ["Education"] = ["Courses", "How To", "Language Learning", "Self-Improvement"],
            ["Fiction"] = ["Comedy Fiction", "Drama", "Science Fiction"],
            ["Government"] = [],
            ["Health & Fitness"] = ["Alternative Health", "Fitness", "Medicine", "Mental Health", "Nutrition", "Sexuality"],
            ["History"] = [],
            ["Kids & Family"] = ["Education for Kids", "Parenting", "Pets & Animals", "Stories for Kids"],
            ["Leisure"] = ["Animation & Manga", "Automotive", "Aviation", "Crafts", "Games", "Hobbies", "Home & Garden", "Video Games"],
            ["Music"] = ["Music Commentary", "Music History", "Music Interviews"],
            ["News"] = ["Business News", "Daily News", "Entertainment News", "News Commentary", "Politics", "Sports News", "Tech News"],
            ["Religion & Spirituality"] = ["Buddhism", "Christianity", "Hinduism", "Islam", "Judaism", "Religion", "Spirituality"],
            ["Science"] =
            [
                "Astronomy",
                "Chemistry",
                "Earth Sciences",
                "Life Sciences",
                "Mathematics",
                "Natural Sciences",
                "Nature",
                "Physics",
                "Social Sciences",
            ],
            ["Society & Culture"] = ["Documentary", "Personal Journals", "Philosophy", "Places & Travel", "Relationships"],
            ["Sports"] =
            [
                "Baseball",
                "Basketball",
                "Cricket",
                "Fantasy Sports",
                "Football",
                "Golf",
                "Hockey",
                "Rugby",
                "Running",
                "Soccer",
                "Swimming",
                "Tennis",
                "Volleyball",
                "Wilderness",
                "Wrestling",
            ],
            ["TV & Film"] = ["After Shows", "Film History", "Film Interviews", "Film Reviews", "TV Reviews"],
            ["Technology"] = [],
            ["True Crime"] = [],
        };

    /// <summary>Whether a category is listed, and the subcategory, where there is one, under it.</summary>
    public static bool Has(string category, string? subcategory) =>
        All.TryGetValue(category, out var under) && (subcategory is null || under.Contains(subcategory));
}
