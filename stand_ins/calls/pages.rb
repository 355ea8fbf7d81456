require "erb"
require "json"
require "jwt"
require "openssl"
require "sinatra/base"
require_relative "../../config/clock"

module Calls
  # What those see who enter: the entrance, the waiting page, the room, and a telephone.
  class Pages < Sinatra::Base
    set :views, File.expand_path("views", __dir__)
    set :public_folder, File.expand_path("public", __dir__)
    set :logging, false
    set :host_authorization, {permitted_hosts: %w[127.0.0.1 localhost]}
    set :environment, :production

    # So many wrong passcodes or PINs a minute, for one call.
    GUESSES = 10
    TRIED = Hash.new { |hash, key| hash[key] = [] }

    before do
      headers "content-security-policy" => "default-src 'none'; script-src 'self'; style-src 'self'; " \
                "connect-src 'self'; img-src data:; form-action 'self'; frame-ancestors 'none'",
        "cache-control" => "no-store", "referrer-policy" => "no-referrer"
    end

    helpers do
      def h(text) = ERB::Util.html_escape(text.to_s)

      def opens_at = Door.opens_at(@room["wish"], Clock.now, @pass && @pass["sub"])

      def moment(at) = %(<time datetime="#{h(at)}">#{h(at.to_s[0, 16].tr("T", " "))} UTC</time>)
    end

    get("/") { erb :front }

    get "/c/:slug" do
      find_room
      read_pass
      @said = state_now
      erb :entrance
    end

    post "/c/:slug" do
      find_room
      read_pass
      @name = @pass ? @pass["name"] : params["name"].to_s.strip[0, 120]
      fault("Say who you are.") if @name.empty?
      check_passcode unless @pass
      return try_out if params["try"]

      enter_call
    end

    get("/phone") { erb :phone }

    post "/phone" do
      @room = rooms.by_pin(params["pin"].to_s.delete("^0-9"))
      guess("phone") unless @room
      return phone_says("This PIN is not in use.") unless @room

      digits = params["number"].to_s.delete("^0-9")[-4..] || "no number"
      said, visit = rooms.enter(@room, key: nil, name: "By phone, #{digits}", phone: true)
      visit ? redirect("/visits/#{@room["id"]}/#{visit}") : phone_says(PHONE_WORDS.fetch(said))
    end

    get "/visits/:call/:visit" do
      find_visit
      erb(VIEWS.fetch(@visit["state"]))
    end

    get "/visits/:call/:visit/state" do
      find_visit
      rooms.beat(params["visit"])
      content_type :json
      JSON.generate({state: @visit["state"], people: people, records: !!@room["recording"],
from: person && person["from"]})
    end

    post "/visits/:call/:visit/:deed" do
      find_visit
      case params["deed"]
      when "leave" then rooms.go(@room, params["visit"])
      when "quiet" then rooms.set(@room, params["visit"], quiet: !@visit["quiet"])
      when "present" then rooms.set(@room, params["visit"], presents: !@visit["presents"]) if may_present?
      when "record" then rooms.record(@room, !@room["recording"]) if host? && @room["wish"]["records"]
      end
      redirect "/visits/#{params["call"]}/#{params["visit"]}"
    end

    private

    VIEWS = {"waits" => :waiting, "in" => :room, "gone" => :gone}.freeze
    PHONE_WORDS = {
      early: "The call is not open yet. Dial again later.", over: "The call is over.",
      refused: "This PIN is not in use."
    }.freeze

    def rooms = settings.rooms

    def find_room = @room = rooms.by_slug(params["slug"]) || halt(404, erb(:refused))

    # A personal link: a token (RFC 7519) made with the secret for this link alone. One that is not good is refused
    # like a link that was guessed.
    def read_pass
      return unless params["pass"]

      @pass, _ = JWT.decode(
        params["pass"], settings.secret, true, algorithm: "HS256", aud: params["slug"], verify_aud: true,
        required_claims: %w[exp sub name], verify_expiration: false
      )
      halt 404, erb(:refused) if Time.at(@pass["exp"]) <= Clock.now
      halt 404, erb(:refused) unless rooms.person(@room, @pass["sub"])
    rescue JWT::DecodeError
      halt 404, erb(:refused)
    end

    def check_passcode
      wanted = @room["wish"]["passcode"]
      return if wanted.nil? || OpenSSL.secure_compare(params["passcode"].to_s.strip, wanted)

      guess(@room["id"])
      fault("The passcode is another one.")
    end

    def guess(what)
      recent = TRIED[what].select { |at| at > Clock.now - 60 }
      TRIED[what] = [*recent, Clock.now]
      halt 429, erb("<p class='fault' role='alert'>Too many tries. Wait a minute.</p>") if recent.size >= GUESSES
    end

    def state_now = Door.state_at(@room["wish"], Clock.now, @pass && @pass["sub"])

    def fault(words)
      @fault = words
      @said = state_now
      halt 422, erb(:entrance)
    end

    def try_out
      rooms.tried(@room, key: @pass && @pass["sub"], name: @name)
      @said = state_now
      @tried = true
      erb :entrance
    end

    def enter_call
      said, visit = rooms.enter(@room, key: @pass && @pass["sub"], name: @name)
      return redirect("/visits/#{@room["id"]}/#{visit}") if visit
      halt 404, erb(:refused) if said == :refused

      @said = said
      erb :entrance
    end

    def phone_says(words)
      @words = words
      erb :phone
    end

    def find_visit
      @room = rooms[params["call"]]
      @visit = @room && @room["visits"][params["visit"]] || halt(404, erb(:refused))
    end

    def person = rooms.person(@room, @visit["key"])

    def host? = rooms.part(@room, @visit["key"]) == "host"

    def may_present? = host? || @room["wish"]["presents"] != "host"

    # Somebody in by browser and by phone is one person.
    def people
      here = @room["visits"].values.select { |one| one["state"] == "in" }
      here.group_by { |one| one["key"] || one }.values.map do |some|
        {name: some.first["name"], quiet: some.all? { |one| one["quiet"] }, presents: some.any? { |one|
          one["presents"]
        },
         host: rooms.part(@room, some.first["key"]) == "host"}
      end
    end
  end
end
