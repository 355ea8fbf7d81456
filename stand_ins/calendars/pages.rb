require "sinatra/base"
require "digest"
require "erb"

module Calendars
  # The calendars themselves, and a plain page to add to them.
  class Pages < Sinatra::Base
    set :logging, false
    set :host_authorization, {permitted_hosts: %w[127.0.0.1 localhost]}
    set :environment, :production
    WALL = /\A\d{4}-\d\d-\d\dT\d\d:\d\d\z/

    before { headers "content-security-policy" => "default-src 'none'; style-src 'unsafe-inline'; form-action 'self'" }

    STYLE = "body{font:15px/1.5 system-ui;max-width:900px;margin:24px auto;padding:0 16px;background:#f6f4ee}" \
      "li{margin:10px 0}"

    helpers do
      def h(text) = ERB::Util.html_escape(text.to_s)

      def row(name, added)
        <<~HTML
          <li><b>#{h(name)}</b> <a href="/#{h(name)}.ics">/#{h(name)}.ics</a>
          #{added.map { |entry| h("#{entry["title"]}, #{entry["from"]}") }.join("; ")}
          <form method="post" action="/#{h(name)}">
            <input name="title" placeholder="What" required aria-label="What">
            <input type="datetime-local" name="from" required aria-label="From">
            <input type="datetime-local" name="to" required aria-label="To"> <button>Add</button>
          </form></li>
        HTML
      end
    end

    get "/" do
      rows = settings.shelf.names.map { |name| row(name, settings.shelf.added(name)) }
      <<~HTML
        <!doctype html><html lang="en"><head><meta charset="utf-8"><title>Calendar host</title>
        <style>#{STYLE}</style></head>
        <body><h1>Calendar host</h1><p>Stand-in for other people's calendar services. Nothing here is real.</p>
        <ul>#{rows.join}</ul></body></html>
      HTML
    end

    get %r{/([a-z]+)\.ics} do |name|
      body = settings.shelf.calendar(name) || halt(404, "There is no such calendar.")
      content_type "text/calendar"
      etag Digest::SHA256.hexdigest(body)[0, 20]
      body
    end

    post "/:name" do |name|
      from, to = params.values_at("from", "to")
      unless [from, to].all? { |text| text.to_s.match?(WALL) } && from < to
        halt 422, "Give times as 2026-11-30T09:30, the end after the start."
      end
      settings.shelf.add(name, params["title"], "#{from}:00", "#{to}:00")
      redirect "/"
    end
  end
end
