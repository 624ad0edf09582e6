<?php

declare(strict_types=1);

namespace LucidStep\Core\Verdict;

/**
 * An attempt that cannot end this way; `field` names what has to change.
 */
final class CannotFinish extends \DomainException
{
    private function __construct(string $message, public readonly string $field)
    {
        parent::__construct($message);
    }

    public static function notFinal(Verdict $verdict): self
    {
        return new self("An attempt cannot end as {$verdict->label()}. Choose pass, fail, blocked or not applicable.", 'verdict');
    }

    public static function undecided(int $notRun): self
    {
        return new self(\sprintf('%s not run yet. Choose the verdict and say why.', self::steps($notRun)), 'verdict');
    }

    public static function onlySuggested(Verdict $rollUp): self
    {
        return new self("The steps suggest {$rollUp->label()}. Choose the verdict to finish.", 'verdict');
    }

    public static function overruledWithoutWhy(Verdict $rollUp, Verdict $chosen): self
    {
        return new self("The steps say {$rollUp->label()}. Say in a few words why it is {$chosen->label()}.", 'note');
    }

    public static function incompleteWithoutWhy(int $notRun): self
    {
        return new self(\sprintf('%s not run. Say in a few words why the attempt ends here.', self::steps($notRun)), 'note');
    }

    private static function steps(int $count): string
    {
        return 1 === $count ? '1 step is' : "{$count} steps are";
    }
}
