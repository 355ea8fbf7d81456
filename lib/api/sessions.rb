module Api
  # Signing in and out.
  class Sessions < Resource
    on(:get, "/session", "showSession", may: :sign_in) { json view }

    on :post, "/session", "signIn", may: :sign_in do
      person = UseCases::People.new.sign_in(email: input[:email], password: input[:password])
      raise Core::Invalid.new("This address and password do not belong together.", pointer: "/password", code: "sign-in") unless person

      begin_session(person[:id])
      json view
    end

    on :delete, "/session", "signOut", may: :sign_in do
      session.clear
      json view
    end

    on :post, "/setup", "setUp", may: :sign_in do
      if input[:password].to_s.empty?
        raise Core::Invalid.new("Choose a password to sign in with.", pointer: "/password")
      end
      person = UseCases::People.new.set_up(**input)
      begin_session(person[:id])
      json view, 201
    end

    private

    # A new session, so that none prepared by somebody else is taken over.
    def begin_session(person_id)
      session.clear
      session[:person_id] = person_id
    end

    def view
      people = use(UseCases::People)
      {person: people.me, csrf_token: Rack::Protection::AuthenticityToken.token(session), needs_set_up: people.empty?}
    end
  end
end
