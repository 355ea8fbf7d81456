require "sinatra/base"

module Api
  # What all resources share. A route names its operation in the contract and the right it needs:
  #
  #   on :put, "/topics/:id", "changeTopic", may: :change_topic, of: :topic do
  #     json topics.change(id: params["id"], version: version, **input)
  #   end
  #
  # Before its block runs, the right is checked, a write must carry the CSRF token, and the body must fit. Who acts by a
  # private link needs no such token: the link says who they are, and not a cookie that a browser sends along by itself.
  class Resource < Sinatra::Base
    # One entry for each route there is; the spec of rights walks them.
    Route = Core::Value.of(:method, :path, :operation, :right, :kind)
    ROUTES = []
    WRONG_SHAPE = "Something is missing or not as it should be."
    SIGNED_IN = "left_over.signed_in"

    set :show_exceptions, false
    set :raise_errors, false
    set :dump_errors, false
    set :logging, false
    set :protection, reaction: :deny, except: [:json_csrf, :session_hijacking, :remote_token]
    set :host_authorization, {permitted_hosts: Settings.test? ? [] : Settings.hosts}
    Problem.registered(self)

    class << self
      # @return [Set<String>] with which its paths begin
      def first_words = @first_words ||= Set.new

      # @param may [Symbol] a right of Core::Rights; :link: whoever has the private link, opened before the block runs
      # @param of [Symbol, nil] what kind of thing :id is, see Loading::Access; for links see Loading::PrivateLink
      # @raise [ArgumentError] for a path with an id whose kind is not said: nobody would look whose it is
      def on(method, path, operation, may:, of: nil, &block)
        raise ArgumentError, "Say what :id is in #{path}." if path.include?(":id") && of.nil?

        first_words << path.split("/", 3)[1]
        ROUTES << Route.new(method: method, path: path, operation: operation, right: may, kind: of)
        schema = Contract.body_schema(operation)
        keys = path.scan(/:(\w*[iI]d)\b/).flatten
        send(method, path) do
          @operation = operation
          enter(may, of, keys)
          check_query(operation)
          @input = read_body(operation) if schema
          instance_exec(&block)
        end
      end
    end

    private

    # What the body says, and what a private link has opened.
    attr_reader :input, :link

    # What the link opens once something has been done by it.
    def reopened = Loading::PrivateLink.open(@kind, params, now: Clock.now)

    # Who acts by a private link needs no cookie and no token: the link says who they are.
    # @param keys [Array<String>] names of what must be keys in the path
    def enter(may, kind, keys)
      @kind = kind
      request.session_options[:skip] = true if may == :link
      check_token unless request.get? || may == :link
      keys.each { |name| raise Core::NotFound unless params[name].to_s.match?(Records::Key::FORMAT) }
      return @link = Loading::PrivateLink.open(kind, params, now: Clock.now) if may == :link

      Loading::Access.new(person_id).allow!(may, kind, params["id"], whose: params["personId"])
    end

    def person_id = signed_in&.first

    # @return [Array(String, String), nil] keys of the person signed in and of the sign-in; looked up once a request
    def signed_in
      return env[SIGNED_IN] if env.key?(SIGNED_IN)

      env[SIGNED_IN] = session[:token] && UseCases::SignIns.new.whose(session[:token])
    end

    # @param kind [Class] of UseCases or of Views, for the person signed in
    def use(kind) = (kind <= UseCases::Base) ? kind.new(by: person_id, sent: @sent) : kind.new(by: person_id)

    def json(value, code = 200)
      status code
      content_type :json
      version = value[:version] || value["version"]
      headers "etag" => %("#{version}") if version
      headers "cache-control" => "no-store"
      Json.write(value)
    end

    # What leaves as a file.
    def download(name, type, content)
      content_type type
      plain = name.unicode_normalize(:nfd).gsub(/[^\x20-\x7E]|["\\]/, "")
      both = %(attachment; filename="#{plain}"; filename*=UTF-8''#{ERB::Util.url_encode(name)})
      headers "content-disposition" => both, "cache-control" => "no-store"
      content
    end

    # The sheet the path speaks of, as it is now.
    def sheet = use(Views::Sheet).show(params["id"])

    # A file sent as base64, as bytes. @raise [Core::Invalid]
    def with_bytes(input)
      return input unless input[:content]

      input.merge(content: input[:content].unpack1("m0"))
    rescue ArgumentError
      raise Core::Invalid.new("The file did not arrive whole. Choose it again.", pointer: "/content")
    end

    # What stands in the query, or nil where it is empty.
    # @return [String, nil]
    def query(name) = request.GET[name].then { |given| given unless given.to_s.empty? }

    # @return [Integer, nil]
    def number(name) = query(name)&.then { |text| Integer(text, 10) }

    def page = number("page") || 1

    # The query is held against the contract, as bodies are. @raise 400
    def check_query(operation)
      faults = Contract.query_faults(operation, request.GET)
      problem(400, "shape", WRONG_SHAPE, errors: faults) if faults.any?
    end

    # The version seen. @raise 428 without one
    def version
      given = request.env["HTTP_IF_MATCH"] or
        problem(428, "version-missing", "Say which version you saw: send If-Match.")
      given[%r{\A(?:W/)?"(\d+)"\z}, 1]&.to_i ||
        problem(400, "version", "If-Match must be a version in quotes, such as \"3\".")
    end

    def check_token
      return if Rack::Protection::AuthenticityToken.new(nil).accepts?(request.env)

      problem 403,
        "token",
        "Your sign-in has changed since this page was opened. Sign in again; what you typed is kept."
    end

    def read_body(operation)
      request.body.rewind if request.body.respond_to?(:rewind)
      text = request.body.read.to_s.force_encoding(Encoding::UTF_8)
      raise EncodingError unless text.valid_encoding?

      data = JSON.parse(text.empty? ? "{}" : text, max_nesting: 20)
      faults = Contract.unfit(data)
      faults = Contract.faults(operation, data) if faults.empty?
      problem(400, "shape", WRONG_SHAPE, errors: faults) if faults.any?
      @sent = Digest::SHA256.hexdigest(text)
      Json.snake(data)
    rescue JSON::ParserError, EncodingError
      problem 400, "json", "The request is not readable as JSON."
    end
  end
end
