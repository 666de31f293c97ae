namespace Wexel.Core.Questions.Lists;

/// <summary>What was read of a list of questions.</summary>
/// <param name="Format">What the list was taken for.</param>
/// <param name="Questions">The questions, in the list's order; none has a time of its own.</param>
/// <param name="Problems">What could not be read, each with its line as the field; at most <see cref="Problem.Most"/>.</param>
public sealed record QuestionList(string Format, IReadOnlyList<Question> Questions, IReadOnlyList<Problem> Problems)
{
    /// <summary>The most questions that are read of one list.</summary>
    public const int Most = 2000;

    private static readonly IReadOnlyList<QuestionFormat> Formats = [new GiftList(), new AikenList(), new CsvList()];

    /// <summary>Reads a text list, in whichever of the formats it is.</summary>
    /// <param name="text">The list.</param>
    public static QuestionList Read(string text)
    {
        var format = Formats.FirstOrDefault(f => f.Looks(text)) ?? Formats[^1];
        var reading = new Reading();
        format.Read(text.ReplaceLineEndings("\n"), reading);
        if (reading.Questions.Count == 0 && reading.Problems.Count == 0)
            reading.Problem(1, "No question can be read in it. GIFT, Aiken and CSV are known.");
        return new QuestionList(format.Name, reading.Questions, reading.Problems);
    }

    /// <summary>What is read, as it is.</summary>
    internal sealed class Reading
    {
        internal List<Question> Questions { get; } = [];

        internal List<Problem> Problems { get; } = [];

        /// <summary>Takes a question; one too many, or one that nobody could ask, is told instead.</summary>
        internal void Add(int line, string text, Interaction asks, string right = "", string wrong = "") =>
            Add(text, asks, right, wrong, says => Problem(line, says));

        /// <inheritdoc cref="Add(int, string, Interaction, string, string)"/>
        /// <param name="name">What names it where the list has no lines.</param>
        /// <param name="text">What is asked.</param>
        /// <param name="asks">How it is answered.</param>
        /// <param name="right">What is said to a right answer.</param>
        /// <param name="wrong">What is said to another.</param>
        internal void Add(string name, string text, Interaction asks, string right, string wrong) => Add(text, asks, right, wrong, says => Named(name, says));

        private void Add(string text, Interaction asks, string right, string wrong, Action<string> tell)
        {
            if (Questions.Count >= Most)
            {
                tell($"A list has at most {Most:N0} questions; this one and those behind it were left out.");
                return;
            }

            var question = Question.Kind.Tidy([new Question($"q{Questions.Count + 1}", default, text, asks, right: right, wrong: wrong)], TimeSpan.MaxValue)[0];
            if (question.Faults is [var fault, ..])
                tell($"{fault} It was left out.");
            else
                Questions.Add(question);
        }

        internal void Problem(int line, string sentence) => Tell($"Line {line}: {sentence}", line.ToString(System.Globalization.CultureInfo.InvariantCulture));

        internal void Named(string name, string sentence) => Tell($"{name}: {sentence}", name);

        private void Tell(string sentence, string field)
        {
            if (Problems.Count < Core.Problem.Most)
                Problems.Add(new Problem("question-list-line", sentence, field));
        }
    }
}

/// <summary>A text format in which lists of questions are written.</summary>
internal abstract class QuestionFormat
{
    /// <summary>What it is called.</summary>
    internal abstract string Name { get; }

    /// <summary>Whether a text looks like it.</summary>
    internal abstract bool Looks(string text);

    /// <summary>Reads a text whose lines end in line feeds.</summary>
    internal abstract void Read(string text, QuestionList.Reading reading);
}
