<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Mail;

use Illuminate\Bus\Queueable;
use Illuminate\Mail\Mailable;
use Illuminate\Mail\Mailables\Content;
use Illuminate\Mail\Mailables\Envelope;
use Illuminate\Support\HtmlString;

/**
 * A mail of plain words.
 */
final class PlainMail extends Mailable
{
    use Queueable;

    public function __construct(private readonly string $about, private readonly string $words) {}

    public function envelope(): Envelope
    {
        return new Envelope(subject: $this->about);
    }

    public function content(): Content
    {
        return new Content(text: 'mail', with: ['words' => new HtmlString($this->words)]);
    }
}
