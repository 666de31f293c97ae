using Microsoft.CodeAnalysis;
using Microsoft.CodeAnalysis.CSharp;
using Microsoft.CodeAnalysis.CSharp.Syntax;

namespace Wexel.Mutants;

/// <summary>Writes faults into a file, each behind a switch. Texts are left alone: what people read is no computation.</summary>
/// <param name="file">The file, relative to Core.</param>
/// <param name="first">The number of the first fault.</param>
/// <param name="dropped">Those that do not compile.</param>
internal sealed class Faults(string file, int first, IReadOnlySet<int> dropped) : CSharpSyntaxRewriter
{
    /// <summary>What asks whether a fault is on.</summary>
    internal const string Switch = "global::Wexel.Core.Mutant.Is";

    private static readonly Dictionary<SyntaxKind, (SyntaxKind Kind, SyntaxKind Token)> Operators = new()
    {
        [SyntaxKind.LessThanExpression] = (SyntaxKind.LessThanOrEqualExpression, SyntaxKind.LessThanEqualsToken),
        [SyntaxKind.LessThanOrEqualExpression] = (SyntaxKind.LessThanExpression, SyntaxKind.LessThanToken),
        [SyntaxKind.GreaterThanExpression] = (SyntaxKind.GreaterThanOrEqualExpression, SyntaxKind.GreaterThanEqualsToken),
        [SyntaxKind.GreaterThanOrEqualExpression] = (SyntaxKind.GreaterThanExpression, SyntaxKind.GreaterThanToken),
        [SyntaxKind.EqualsExpression] = (SyntaxKind.NotEqualsExpression, SyntaxKind.ExclamationEqualsToken),
        [SyntaxKind.NotEqualsExpression] = (SyntaxKind.EqualsExpression, SyntaxKind.EqualsEqualsToken),
        [SyntaxKind.LogicalAndExpression] = (SyntaxKind.LogicalOrExpression, SyntaxKind.BarBarToken),
        [SyntaxKind.LogicalOrExpression] = (SyntaxKind.LogicalAndExpression, SyntaxKind.AmpersandAmpersandToken),
        [SyntaxKind.AddExpression] = (SyntaxKind.SubtractExpression, SyntaxKind.MinusToken),
        [SyntaxKind.SubtractExpression] = (SyntaxKind.AddExpression, SyntaxKind.PlusToken),
        [SyntaxKind.MultiplyExpression] = (SyntaxKind.DivideExpression, SyntaxKind.SlashToken),
        [SyntaxKind.DivideExpression] = (SyntaxKind.MultiplyExpression, SyntaxKind.AsteriskToken),
    };

    private static readonly Dictionary<string, string> Methods = new[]
    {
        ("First", "Last"),
        ("FirstOrDefault", "LastOrDefault"),
        ("Any", "All"),
        ("Min", "Max"),
        ("MinBy", "MaxBy"),
        ("OrderBy", "OrderByDescending"),
        ("ThenBy", "ThenByDescending"),
        ("Take", "Skip"),
        ("TakeWhile", "SkipWhile"),
        ("Floor", "Ceiling"),
        ("Concat", "Except"),
    }
        .SelectMany(pair => new[] { pair, (pair.Item2, pair.Item1) })
        .ToDictionary(pair => pair.Item1, pair => pair.Item2);

    private readonly List<Fault> _found = [];

    /// <summary>All faults of the file that compile.</summary>
    internal IReadOnlyList<Fault> Found => [.. _found.Where(f => !dropped.Contains(f.Id))];

    /// <summary>The number after the last.</summary>
    internal int Next => first + _found.Count;

    // What must be known when it is compiled cannot have a switch.
    public override SyntaxNode? VisitAttributeList(AttributeListSyntax node) => node;

    public override SyntaxNode? VisitParameterList(ParameterListSyntax node) => node;

    public override SyntaxNode? VisitEnumMemberDeclaration(EnumMemberDeclarationSyntax node) => node;

    public override SyntaxNode? VisitFieldDeclaration(FieldDeclarationSyntax node) =>
        node.Modifiers.Any(SyntaxKind.ConstKeyword) ? node : base.VisitFieldDeclaration(node);

    public override SyntaxNode? VisitLocalDeclarationStatement(LocalDeclarationStatementSyntax node) =>
        node.IsConst ? node : base.VisitLocalDeclarationStatement(node);

    public override SyntaxNode? VisitConstantPattern(ConstantPatternSyntax node) => node;

    public override SyntaxNode? VisitRelationalPattern(RelationalPatternSyntax node) => node;

    public override SyntaxNode? VisitBinaryExpression(BinaryExpressionSyntax node)
    {
        var visited = (ExpressionSyntax)base.VisitBinaryExpression(node)!;
        if (node.IsKind(SyntaxKind.CoalesceExpression))
            return node.Right is ThrowExpressionSyntax ? visited : With(node, visited, node.Right);
        return Operators.TryGetValue(node.Kind(), out var other)
            ? With(
                node,
                visited,
                SyntaxFactory.BinaryExpression(other.Kind, node.Left, SyntaxFactory.Token(other.Token).WithTriviaFrom(node.OperatorToken), node.Right)
            )
            : visited;
    }

    public override SyntaxNode? VisitPrefixUnaryExpression(PrefixUnaryExpressionSyntax node)
    {
        var visited = (ExpressionSyntax)base.VisitPrefixUnaryExpression(node)!;
        return node.Kind() is SyntaxKind.LogicalNotExpression or SyntaxKind.UnaryMinusExpression ? With(node, visited, node.Operand) : visited;
    }

    public override SyntaxNode? VisitLiteralExpression(LiteralExpressionSyntax node) =>
        node.Kind() switch
        {
            SyntaxKind.TrueLiteralExpression => With(node, node, SyntaxFactory.LiteralExpression(SyntaxKind.FalseLiteralExpression)),
            SyntaxKind.FalseLiteralExpression => With(node, node, SyntaxFactory.LiteralExpression(SyntaxKind.TrueLiteralExpression)),
            _ => node,
        };

    public override SyntaxNode? VisitConditionalExpression(ConditionalExpressionSyntax node)
    {
        var visited = (ExpressionSyntax)base.VisitConditionalExpression(node)!;
        return With(node, visited, node.WithWhenTrue(node.WhenFalse).WithWhenFalse(node.WhenTrue));
    }

    public override SyntaxNode? VisitInvocationExpression(InvocationExpressionSyntax node)
    {
        if (node.Expression is IdentifierNameSyntax { Identifier.Text: "nameof" })
            return node;
        var visited = (ExpressionSyntax)base.VisitInvocationExpression(node)!;
        return
            node.Expression is MemberAccessExpressionSyntax { Name: IdentifierNameSyntax name } access
            && Methods.TryGetValue(name.Identifier.Text, out var other)
            ? With(node, visited, node.WithExpression(access.WithName(SyntaxFactory.IdentifierName(other))))
            : visited;
    }

    public override SyntaxNode? VisitExpressionStatement(ExpressionStatementSyntax node)
    {
        var visited = base.VisitExpressionStatement(node)!;
        var other = node.Expression switch
        {
            PostfixUnaryExpressionSyntax { RawKind: (int)SyntaxKind.PostIncrementExpression } step => $"{step.Operand}--",
            PostfixUnaryExpressionSyntax { RawKind: (int)SyntaxKind.PostDecrementExpression } step => $"{step.Operand}++",
            AssignmentExpressionSyntax { RawKind: (int)SyntaxKind.AddAssignmentExpression } sum => $"{sum.Left} -= {sum.Right}",
            AssignmentExpressionSyntax { RawKind: (int)SyntaxKind.SubtractAssignmentExpression } sum => $"{sum.Left} += {sum.Right}",
            _ => null,
        };
        if (other is null)
            return visited;
        var fault = Add(node, node.Expression.ToString(), other);
        return dropped.Contains(fault.Id)
            ? visited
            : SyntaxFactory.ParseStatement($"if ({Switch}({fault.Id})) {{ {other}; }} else {{ {visited.ToFullString()}\n}}\n");
    }

    private ExpressionSyntax With(ExpressionSyntax node, ExpressionSyntax visited, ExpressionSyntax other)
    {
        var fault = Add(node, OneLine(node), OneLine(other));
        return dropped.Contains(fault.Id)
            ? visited
            : SyntaxFactory
                .ParseExpression($"({Switch}({fault.Id}) ? ({other.WithoutTrivia().ToFullString()}\n) : ({visited.WithoutTrivia().ToFullString()}\n))")
                .WithTriviaFrom(node);
    }

    private Fault Add(SyntaxNode node, string was, string becomes)
    {
        var fault = new Fault(Next, file, node.GetLocation().GetLineSpan().StartLinePosition.Line + 1, was, becomes);
        _found.Add(fault);
        return fault;
    }

    private static string OneLine(SyntaxNode node) => string.Join(' ', node.ToString().Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries));
}
