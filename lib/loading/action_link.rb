require "openssl"

module Loading
  # The private link by which an owner says how an action goes: it belongs to one person and one action, and is worth
  # something as long as that is theirs.
  class ActionLink
    def self.token(action_id, person_id) =
      OpenSSL::HMAC.hexdigest("SHA256", Settings.secret, "action:#{action_id}:#{person_id}")[0, 40]

    def self.path(action_id, person_id) = "/action/#{action_id}/#{person_id}/#{token(action_id, person_id)}"

    # So many stand in one mail.
    LISTED = 30

    # Actions as a mail to one of their owners says them.
    # @param actions [Array<Records::ActionItem>] with their series
    # @return [Array<Hash>] text, series, due_on and path
    def self.rows(actions, person)
      actions.first(LISTED).map do |action|
        {text: action.text, series: action.series.title, due_on: action.due_on, path: path(action.id, person.id)}
      end
    end

    attr_reader :action_id, :person_id

    # @raise [Core::NotFound] when the link is not, or no more, worth anything
    def initialize(action_id:, person_id:, token:)
      raise Core::NotFound unless OpenSSL.secure_compare(ActionLink.token(action_id, person_id), token.to_s)
      raise Core::NotFound unless Records::ActionOwner.exists?(action_item_id: action_id, person_id: person_id)

      @action_id, @person_id = action_id, person_id
    end
  end
end
