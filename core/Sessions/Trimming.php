<?php

declare(strict_types=1);

namespace LucidStep\Core\Sessions;

/**
 * Proposes which lines of a stretch lead to what is seen at its end, and which may be left out, with why (rules of the job, 8). It only
 * marks.
 */
final class Trimming
{
    /** @var array<int, WhyDropped> what is left out by now, by index */
    private array $dropped = [];

    /** Where the way begins, by index. */
    private int $start = 0;

    /**
     * @param  list<SessionLine>  $lines in order, the marked one last
     */
    private function __construct(private readonly array $lines) {}

    /**
     * @param  list<SessionLine>  $lines of the session in order, up to the marked one, which is last
     * @param  int  $from where the stretch begins that somebody chose, by index
     *
     * @return array<string, ?WhyDropped> by line from the first that matters: null where it stays
     */
    public static function propose(array $lines, int $from = 0): array
    {
        $trim = new self($lines);
        $trim->begin($from);
        do {
            $changed = $trim->silentCaptures();
            $changed = $trim->replaced() || $changed;
            $changed = $trim->leftByRedirect() || $changed;
            $changed = $trim->detours() || $changed;
            $changed = $trim->unneeded() || $changed;
        } while ($changed);
        $said = [];
        foreach ($lines as $i => $line) {
            $why = $trim->dropped[$i] ?? null;
            if ($i >= $from || WhyDropped::BeforeTheStart !== $why) {
                $said[$line->id] = $why;
            }
        }

        return $said;
    }

    /**
     * Leaves out what is before the start, but what is pinned and the visits that open the pages of what stays.
     */
    private function begin(int $from): void
    {
        $start = $this->start = $this->start($from);
        foreach ($this->lines as $i => $line) {
            if ($i < $start && !($i >= $from && $line->pinned)) {
                $this->dropped[$i] = WhyDropped::BeforeTheStart;
            }
        }
        $openings = $this->openings();
        foreach ($this->lines as $i => $line) {
            if (!isset($this->dropped[$i]) && $line->standsOnPage() && isset($openings[$i])) {
                unset($this->dropped[$openings[$i]]);
            }
        }
    }

    /**
     * Where the way begins: back from the marked page over everything that followed from what was done on the page before; no further back
     * than the stretch.
     */
    private function start(int $from): int
    {
        $marked = \count($this->lines) - 1;
        $tab = $this->lines[$marked]->tab ?? $this->lastTab();
        $at = null === $tab ? null : $this->lastVisit($marked + 1, $tab);
        while (null !== $at && true !== $this->lines[$at]->reached?->begins()) {
            $visit = $this->lines[$at];
            $before = $this->lastVisit($at, Reached::PressedTab === $visit->reached ? $visit->opener : $visit->tab);
            // What came before the page is not known: all of the stretch may have led there.
            $at = $before;
        }

        return max($at ?? 0, $from);
    }

    /**
     * @return ?string in which something was observed last
     */
    private function lastTab(): ?string
    {
        foreach (array_reverse($this->lines) as $line) {
            if ($line->kind->isObserved()) {
                return $line->tab;
            }
        }

        return null;
    }

    /**
     * @return ?int the last visit in a tab before a line
     */
    private function lastVisit(int $before, ?string $tab): ?int
    {
        for ($i = $before - 1; $i >= 0; --$i) {
            if (LineKind::Visit === $this->lines[$i]->kind && $this->lines[$i]->tab === $tab) {
                return $i;
            }
        }

        return null;
    }

    /**
     * @return array<int, int> the visit that opened the page of each line, by index
     */
    private function openings(): array
    {
        $openings = $last = [];
        foreach ($this->lines as $i => $line) {
            $tab = $line->tab ?? '';
            if (LineKind::Visit === $line->kind) {
                $last[$tab] = $i;
            } elseif ($line->standsOnPage() && isset($last[$tab])) {
                $openings[$i] = $last[$tab];
            }
        }

        return $openings;
    }

    private function silentCaptures(): bool
    {
        $changed = false;
        foreach ($this->kept() as $i) {
            $line = $this->lines[$i];
            if (LineKind::Capture === $line->kind && !$line->says() && $this->mayGo($i)) {
                $this->dropped[$i] = WhyDropped::SilentCapture;
                $changed = true;
            }
        }

        return $changed;
    }

    /**
     * What was typed or chosen, and again in the same control before anything was pressed, sent or opened.
     */
    private function replaced(): bool
    {
        $changed = false;
        /** @var array<string, int> $open what was entered last, by control */
        $open = [];
        foreach ($this->kept() as $i) {
            $line = $this->lines[$i];
            if (\in_array($line->kind, [LineKind::Press, LineKind::Submit, LineKind::Visit], true)) {
                $open = [];
            } elseif (LineKind::Type === $line->kind || LineKind::Choose === $line->kind) {
                $control = "{$line->tab}\n{$line->page}\n{$line->control}";
                if (isset($open[$control]) && $this->mayGo($open[$control])) {
                    $this->dropped[$open[$control]] = WhyDropped::Replaced;
                    $changed = true;
                }
                $open[$control] = $i;
            }
        }

        return $changed;
    }

    private function leftByRedirect(): bool
    {
        $changed = false;
        /** @var array<string, ?int> $last a visit after which nothing happened yet, by tab */
        $last = [];
        foreach ($this->kept() as $i) {
            $line = $this->lines[$i];
            if (!$line->kind->isObserved()) {
                continue;
            }
            $tab = $line->tab ?? '';
            $before = $last[$tab] ?? null;
            if (LineKind::Visit === $line->kind && Reached::Redirect === $line->reached && null !== $before && $this->mayGo($before)) {
                $this->dropped[$before] = WhyDropped::LeftByRedirect;
                $changed = true;
            }
            $last[$tab] = LineKind::Visit === $line->kind ? $i : null;
        }

        return $changed;
    }

    /**
     * Leaves out ways that left a page and came back to it with nothing done in between, from the left.
     */
    private function detours(): bool
    {
        $kept = $this->kept();
        $last = $this->lastVisits($kept);
        $changed = false;
        /** @var array<string, string> $pages where each tab is */
        $pages = [];
        /** @var array<string, true> $entered tabs in which something is entered and not sent */
        $entered = [];
        for ($at = 0; isset($kept[$at]); ++$at) {
            $line = $this->lines[$kept[$at]];
            $tab = $line->tab ?? '';
            if (!$line->kind->isObserved()) {
                continue;
            }
            $comesBack = isset($pages[$tab]) && $at < ($last["{$tab}\n{$pages[$tab]}"] ?? 0);
            $end = $comesBack && $this->mayLeave($line) && !isset($entered[$tab]) ? $this->back($kept, $at, $pages[$tab]) : null;
            if (null !== $end) {
                foreach (\array_slice($kept, $at, $end - $at + 1) as $gone) {
                    $this->dropped[$gone] = WhyDropped::Detour;
                }
                // The tab is where it was.
                [$at, $changed] = [$end, true];
            } elseif (LineKind::Visit === $line->kind) {
                $pages[$tab] = (string) $line->page;
                unset($entered[$tab]);
            } elseif ($line->kind->enters()) {
                $entered[$tab] = true;
            } elseif (LineKind::Submit === $line->kind) {
                unset($entered[$tab]);
            }
        }

        return $changed;
    }

    /**
     * Whether a way round may begin with a line: a page that came of a press, or of sending, was left by that, which is no part of it.
     */
    private function mayLeave(SessionLine $line): bool
    {
        return LineKind::Visit !== $line->kind || !\in_array($line->reached, [Reached::Press, Reached::Submit, Reached::PressedTab], true);
    }

    /**
     * @param  list<int>  $kept
     *
     * @return array<string, int> the last visit to each page of each tab, by its place among what is kept
     */
    private function lastVisits(array $kept): array
    {
        $last = [];
        foreach ($kept as $at => $i) {
            if (LineKind::Visit === $this->lines[$i]->kind) {
                $last["{$this->lines[$i]->tab}\n{$this->lines[$i]->page}"] = $at;
            }
        }

        return $last;
    }

    /**
     * Visits before the start, which only open pages, when nothing that stays stands on those any more.
     */
    private function unneeded(): bool
    {
        $needed = $last = [];
        foreach ($this->kept() as $i) {
            $line = $this->lines[$i];
            if (LineKind::Visit === $line->kind) {
                $last[$line->tab ?? ''] = $i;
            } elseif ($line->standsOnPage()) {
                $needed[$last[$line->tab ?? ''] ?? -1] = true;
            }
        }
        $changed = false;
        foreach ($this->kept() as $i) {
            if ($i < $this->start && LineKind::Visit === $this->lines[$i]->kind && !$this->lines[$i]->pinned && !isset($needed[$i])) {
                $this->dropped[$i] = WhyDropped::BeforeTheStart;
                $changed = true;
            }
        }

        return $changed;
    }

    /**
     * @param  list<int>  $kept
     *
     * @return ?int where the way that begins at a line first comes back to a page, by its place among what is kept; null: it does not, or
     *     something was done on it
     */
    private function back(array $kept, int $at, string $page): ?int
    {
        $tab = $this->lines[$kept[$at]]->tab;
        $wasElsewhere = false;
        for ($j = $at; isset($kept[$j]); ++$j) {
            $line = $this->lines[$kept[$j]];
            if ($line->tab !== $tab || !$this->mayGo($kept[$j])) {
                return null;
            }
            if (LineKind::Press === $line->kind) {
                if (!$this->leads($kept, $j)) {
                    return null;
                }
            } elseif (LineKind::Visit !== $line->kind) {
                return null;
            } elseif ($line->page !== $page) {
                $wasElsewhere = true;
            } else {
                // Where it was never left, it did not come back.
                return $wasElsewhere ? $j : null;
            }
        }

        return null;
    }

    /**
     * Whether a press led to a visit.
     *
     * @param  list<int>  $kept
     */
    private function leads(array $kept, int $at): bool
    {
        $next = isset($kept[$at + 1]) ? $this->lines[$kept[$at + 1]] : null;

        return LineKind::Visit === $next?->kind && Reached::Press === $next->reached && $next->tab === $this->lines[$kept[$at]]->tab;
    }

    /**
     * Whether a line may be left out at all: what is marked, pinned, said, and trouble stay.
     */
    private function mayGo(int $i): bool
    {
        $line = $this->lines[$i];

        return $i < \count($this->lines) - 1 && !$line->pinned && !$line->says() && LineKind::Trouble !== $line->kind;
    }

    /**
     * @return list<int> what is not left out, by index
     */
    private function kept(): array
    {
        $kept = [];
        foreach (array_keys($this->lines) as $i) {
            if (!isset($this->dropped[$i])) {
                $kept[] = $i;
            }
        }

        return $kept;
    }
}
