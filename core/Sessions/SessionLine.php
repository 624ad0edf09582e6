<?php

declare(strict_types=1);

namespace LucidStep\Core\Sessions;

/**
 * A line of a session's timeline.
 */
final readonly class SessionLine
{
    /**
     * @param  int  $atMs     on the session's clock
     * @param  string  $words    what was written, the message of trouble, or the title of a page
     * @param  ?string  $page     the page that a visit came to, or that it happened on; null for what was written
     * @param  ?string  $tab      in which tab of the browser; of what was written the one that was looked at
     * @param  ?Reached  $reached  of a visit
     * @param  ?string  $opener   the tab from which a visit's own tab was opened by a press
     * @param  string  $control  what the control is called, at most 80 characters
     * @param  ?string  $value    what was typed or chosen; null: it is never read
     */
    public function __construct(
        public string $id,
        public LineKind $kind,
        public int $atMs,
        public string $words = '',
        public bool $pinned = false,
        public ?string $page = null,
        public ?string $tab = null,
        public ?Reached $reached = null,
        public ?string $opener = null,
        public string $control = '',
        public ?string $value = null,
    ) {}

    /**
     * Whether it is an act on a page, which that page must be open for.
     */
    public function standsOnPage(): bool
    {
        return $this->kind->isObserved() && LineKind::Visit !== $this->kind;
    }

    /**
     * Whether it is something to be done, by whoever follows.
     */
    public function isStep(): bool
    {
        return match ($this->kind) {
            LineKind::Visit => $this->reached?->isStep() ?? true,
            LineKind::Trouble => false,
            default => $this->kind->isObserved(),
        };
    }

    /**
     * Whether a person said something with it.
     */
    public function says(): bool
    {
        return !$this->kind->isObserved() && (LineKind::Capture !== $this->kind || '' !== trim($this->words));
    }
}
