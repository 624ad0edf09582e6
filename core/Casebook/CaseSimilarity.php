<?php

declare(strict_types=1);

namespace LucidStep\Core\Casebook;

use LucidStep\Core\Text\Words;

/**
 * How much two cases say the same: words of the titles 0.4, words of the steps 0.6. A case without steps is judged
 * by its title alone.
 */
final readonly class CaseSimilarity
{
    /** From here on they are pointed out. */
    public const LIKELY = 0.6;

    private Words $title;

    private Words $steps;

    /**
     * @param  string  $steps all texts of its steps
     */
    public function __construct(string $title, string $steps)
    {
        $this->title = Words::of($title);
        $this->steps = Words::of($steps);
    }

    public function likeness(self $other): float
    {
        $titles = $this->title->likeness($other->title);

        return $this->steps->isEmpty() && $other->steps->isEmpty() ? $titles : 0.4 * $titles + 0.6 * $this->steps->likeness($other->steps);
    }
}
