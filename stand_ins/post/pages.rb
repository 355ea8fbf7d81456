require "sinatra/base"
require "erb"

module Post
  # What lies in the tray, on plain pages.
  class Pages < Sinatra::Base
    set :views, File.expand_path("views", __dir__)
    set :logging, false
    set :host_authorization, {permitted_hosts: %w[127.0.0.1 localhost]}
    set :environment, :production
    set :erb, escape_html: false

    helpers do
      def h(text) = ERB::Util.html_escape(text.to_s)

      def part(mail, type) = mail.all_parts.find { |one| one.mime_type == type } || (mail if mail.mime_type == type || (type == "text/plain" && !mail.multipart?))

      def text_of(part) = part&.decoded.to_s.dup.force_encoding("UTF-8").scrub
    end

    # The mail's own HTML is shown in a frame that runs nothing and loads nothing.
    before { headers "content-security-policy" => "default-src 'none'; style-src 'unsafe-inline'; img-src data:; frame-src 'self'; form-action 'self'" }

    get "/" do
      @to = params["to"].to_s.empty? ? nil : params["to"]
      @entries = settings.store.entries(to: @to).first(500)
      @addresses = settings.store.addresses
      erb :tray
    end

    get "/mails/:key" do
      @mail = settings.store.mail(params["key"]) || halt(404, "There is no such mail.")
      @key = params["key"]
      erb :mail
    end

    get "/mails/:key/html" do
      mail = settings.store.mail(params["key"]) || halt(404)
      headers "content-security-policy" => "default-src 'none'; style-src 'unsafe-inline'; sandbox", "x-frame-options" => "SAMEORIGIN"
      text_of(part(mail, "text/html"))
    end

    get "/mails/:key/source" do
      mail = settings.store.mail(params["key"]) || halt(404)
      content_type "text/plain"
      mail.raw_source
    end

    # For tests and other programs: what lies here, as JSON.
    get "/mails.json" do
      content_type :json
      JSON.generate(mails: settings.store.entries(to: params["to"]).map { |one| {key: one.key, to: one.to, subject: one.subject, at: one.at.iso8601(3)} }, repeats: settings.store.repeats)
    end
  end
end
