require "sinatra/base"
require "erb"
require_relative "correspondent"
require_relative "organizer"

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

      def part(mail, type) = mail.all_parts.find { |one| one.mime_type == type } ||
        (mail if mail.mime_type == type || (type == "text/plain" && !mail.multipart?))

      def correspondent(address) = Correspondent.new(settings.store, address, entrance_port: settings.entrance_port)

      # Sends what the block makes of a mail, and shows the calendar.
      def reply
        mail = settings.store.mail(params["key"]) || halt(404, "There is no such mail.")
        address = settings.store.recipient(params["key"])
        yield(
          correspondent(address),
          Correspondent.message_of(mail, params["key"]) || halt(422, "This mail asks nothing.")
        )
        redirect "/calendar?of=#{Rack::Utils.escape(address)}"
      rescue SystemCallError, Net::SMTPError => error
        halt 503, "The organizer's mail entrance does not answer: #{h(error.message)}"
      end

      def text_of(part) = part&.decoded.to_s.dup.force_encoding("UTF-8").scrub
    end

    # The mail's own HTML is shown in a frame that runs nothing and loads nothing.
    before do
      headers "content-security-policy" =>
                "default-src 'none'; style-src 'unsafe-inline'; img-src data:; frame-src 'self'; form-action 'self'"
    end

    get "/" do
      @to = params["to"].to_s.empty? ? nil : params["to"]
      @entries = settings.store.entries(to: @to).first(500)
      @addresses = settings.store.addresses
      erb :tray
    end

    get "/mails/:key" do
      @mail = settings.store.mail(params["key"]) || halt(404, "There is no such mail.")
      @key = params["key"]
      @to = settings.store.recipient(@key)
      @message = Correspondent.message_of(@mail, @key)
      correspondent = correspondent(@to)
      @latest = @message && correspondent.meetings.any? { |one| one.mail_key == @key }
      @instances = @latest ? correspondent.instances.select { |one| one.title == @message.master.summary.to_s } : []
      erb :mail
    end

    post "/mails/:key/answer" do
      halt 422, "There is no such answer." unless Correspondent::ANSWERS.key?(params["answer"])
      reply do |correspondent, message|
        correspondent.answer(message, params["answer"], params["original"], params["comment"])
      end
    end

    post "/mails/:key/offer" do
      halt 422, "Give a time." unless params["starts_at"].to_s.match?(/\A\d{4}-\d\d-\d\dT\d\d:\d\d\z/)
      reply do |correspondent, message|
        correspondent.offer(message, params["original"], params["starts_at"], params["comment"])
      end
    end

    get "/calendar" do
      @address = params["of"].to_s
      @instances = correspondent(@address).instances
      @cancelled = correspondent(@address).meetings.select { |message| message.method == "CANCEL" }
      erb :calendar
    end

    # Writing to the application as somebody of another house does.
    get "/organizer" do
      @wish = params
      erb :organizer
    end

    post "/organizer" do
      halt 422, "Give a start." unless params["starts_at"].to_s.match?(/\A\d{4}-\d\d-\d\dT\d\d:\d\d\z/)
      sent = Organizer.new(entrance_port: settings.entrance_port).send_message(params)
      redirect "/organizer?#{Rack::Utils.build_query(sent)}"
    rescue SystemCallError, Net::SMTPError => error
      halt 503, "The mail entrance does not answer: #{h(error.message)}"
    end

    get "/mails/:key/html" do
      mail = settings.store.mail(params["key"]) || halt(404)
      headers "content-security-policy" => "default-src 'none'; style-src 'unsafe-inline'; sandbox",
        "x-frame-options" => "SAMEORIGIN"
      text_of(part(mail, "text/html"))
    end

    get "/mails/:key/source" do
      mail = settings.store.mail(params["key"]) || halt(404)
      content_type "text/plain"
      mail.raw_source
    end

    get "/texts" do
      @texts = settings.texts.all.first(500)
      erb :texts
    end

    # For tests and other programs: what lies here, as JSON.
    get "/texts.json" do
      content_type :json
      JSON.generate(texts: settings.texts.all.map(&:to_h))
    end

    get "/mails.json" do
      content_type :json
      JSON.generate(
        mails:
          settings
            .store
            .entries(to: params["to"])
            .map { |one| {key: one.key, to: one.to, subject: one.subject, at: one.at.iso8601(3)} },
        repeats: settings.store.repeats
      )
    end
  end
end
