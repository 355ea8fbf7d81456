require "openssl"

module Loading
  # The private link by which an owner says how an action goes: it belongs to one person and one action, and is worth
  # something as long as that is theirs.
  class ActionLink
    def self.token(action_id, person_id) =
      OpenSSL::HMAC.hexdigest("SHA256", Settings.secret, "action:#{action_id}:#{person_id}")[0, 40]

    def self.path(action_id, person_id) = "/action/#{action_id}/#{person_id}/#{token(action_id, person_id)}"

    attr_reader :action_id, :person_id

    # @raise [Core::NotFound] when the link is not, or no more, worth anything
    def initialize(action_id:, person_id:, token:)
      raise Core::NotFound unless OpenSSL.secure_compare(ActionLink.token(action_id, person_id), token.to_s)
      raise Core::NotFound unless Records::ActionOwner.exists?(action_item_id: action_id, person_id: person_id)

      @action_id, @person_id = action_id, person_id
    end
  end
end
