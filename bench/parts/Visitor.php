<?php

declare(strict_types=1);

/** Somebody at a browser, on one connection, who waits for each answer. */
final readonly class Visitor
{
    private CurlHandle $handle;

    public function __construct(private string $base)
    {
        $handle = curl_init();
        $handle !== false || exit("curl does not start.\n");
        $this->handle = $handle;
    }

    /**
     * @param array<string, string>|null $form
     *
     * @return array{string, float, int} the page, ms until it began to arrive, the status
     */
    public function ask(string $path, ?array $form = null, bool $follows = true): array
    {
        curl_setopt_array($this->handle, [
            \CURLOPT_URL => $this->base.$path,
            \CURLOPT_RETURNTRANSFER => true,
            \CURLOPT_COOKIEFILE => '',
            \CURLOPT_FOLLOWLOCATION => $follows,
            \CURLOPT_TIMEOUT => 60,
            \CURLOPT_HTTPGET => true,
        ]);
        $form === null || curl_setopt($this->handle, \CURLOPT_POSTFIELDS, http_build_query($form));
        $body = (string) curl_exec($this->handle);

        return [
            $body,
            (float) curl_getinfo($this->handle, \CURLINFO_STARTTRANSFER_TIME) * 1000,
            (int) curl_getinfo($this->handle, \CURLINFO_RESPONSE_CODE),
        ];
    }

    /** @return string the board */
    public function logIn(string $login): string
    {
        preg_match('/_csrf_token" value="([^"]+)"/', $this->ask('/login')[0], $token) === 1
            || exit("The login page is not there.\n");

        $this->ask(
            '/login',
            ['_username' => $login, '_password' => 'oak-and-patience', '_csrf_token' => $token[1]],
            false,
        );

        return $this->ask('/')[0];
    }
}
