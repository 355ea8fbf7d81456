module Api
  # Signing in and out, choosing a password, and where one is signed in.
  class Sessions < Resource
    on(:get, "/session", "showSession", may: :sign_in) { json state }

    on :post, "/session", "signIn", may: :sign_in do
      browser = KnownBrowser.new(request.cookies[KnownBrowser::COOKIE])
      person_id, token = sign_ins.sign_in(
        email: input[:email], password: input[:password], from: App.peer(env), browser: browser, program: program
      )
      hold token
      know browser.with(person_id)
      json state
    end

    on :delete, "/session", "signOut", may: :sign_in do
      sign_ins.sign_out(session[:token]) if session[:token]
      hold nil
      json state
    end

    on :post, "/setup", "setUp", may: :sign_in do
      person = UseCases::People.new.set_up(**input)
      hold sign_ins.begin_for(person.id, program)
      json state, 201
    end

    on(:get, "/sessions", "listSignIns", may: :keep_sign_ins) { json sign_ins.list(signed_in.last) }

    on :delete, "/sessions", "endOtherSignIns", may: :keep_sign_ins do
      sign_ins.end_all(person_id, except: signed_in.last)
      json sign_ins.list(signed_in.last)
    end

    on :delete, "/sessions/:id", "endSignIn", may: :end_sign_in, of: :session do
      sign_ins.end_one(params["id"])
      json sign_ins.list(signed_in.last)
    end

    on :put, "/own-password", "changeOwnPassword", may: :keep_sign_ins do
      sign_ins.change_password(**input, current: signed_in.last)
      status 204
    end

    on :post, "/password-links", "mailPasswordLink", may: :sign_in do
      use(UseCases::LinkWishes).ask(email: input[:email])
      status 204
    end

    on(:get, "/sign-in-links/:token", "openSignInLink", may: :sign_in) { json sign_ins.show_link(params["token"]) }

    on :put, "/sign-in-links/:token", "useSignInLink", may: :sign_in do
      hold sign_ins.use_link(params["token"], password: input[:password], program: program)
      json state
    end

    on :post, "/people/:id/sign-in-invitation", "inviteToSignIn", may: :keep_people, of: :person do
      sign_ins.invite(params["id"])
      status 204
    end

    on :post, "/people/:id/private-links", "renewPrivateLinks", may: :renew_links, of: :person do
      use(UseCases::PrivateLinks).renew(params["id"])
      status 204
    end

    private

    def sign_ins = use(UseCases::SignIns)

    # A new session, so that none prepared by somebody else is taken over.
    def hold(token)
      session.clear
      session[:token] = token if token
      env.delete(SIGNED_IN)
    end

    def know(value) = response.set_cookie(
      KnownBrowser::COOKIE,
      value: value, path: "/api/session", httponly: true, same_site: :lax, secure: Settings.origin.start_with?("https:"),
      max_age: KnownBrowser::LASTS_S
    )

    # In which browser, as far as it says so, for people to know it by.
    def program
      said = request.user_agent.to_s.scrub
      browser = said[/(Firefox|Edg|OPR|Chrome|Safari)\/\d+/, 1]
      system = said[/(Windows|Android|iPhone|iPad|Macintosh|Linux)/, 1]
      [
        {"Edg" => "Edge", "OPR" => "Opera"}.fetch(browser, browser),
        system &&
          "on #{{"Macintosh" => "a Mac", "iPhone" => "an iPhone", "iPad" => "an iPad"}.fetch(system, system)}"
      ].compact.join(" ")
    end

    def state
      people = use(Views::People)
      me = people.me
      token = Rack::Protection::AuthenticityToken.token(session)
      {person: me, csrf_token: token, needs_set_up: me.nil? && people.empty?, month_first: people.month_first?,
       region: people.region}
    end
  end
end
