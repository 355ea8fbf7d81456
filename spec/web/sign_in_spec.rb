require_relative "../web_helper"

RSpec.describe "Signing in" do
  let!(:marit) { person("Marit Hauge", admin: true) }
  let!(:wen) { person("Wen Halloran") }
  let(:choice) { "gulls over grey slate" }

  # The link in the latest mail to somebody, as the post tray has it.
  def mailed_link(address)
    source = nil
    eventually do
      source =
        Records::Mail
          .where(recipient: address, state: %w[sent delivered])
          .where("reason like 'sign-in:%'")
          .order(:created_at)
          .last
          &.source
    end
    ::Mail.new(source).text_part.decoded[%r{/sign-in/\S+}]
  end

  def in_another_browser(&) = Capybara.using_session(:another, &)

  def expect_signed_out_elsewhere
    in_another_browser do
      visit "/actions"
      expect(page).to have_field "Password"
      yield if block_given?
    end
  end

  it "wears the colours of the theme, in whatever order the styles arrive" do
    sign_in_as("Marit Hauge")
    visit "/series/new"
    colours = {"background-color" => "rgb(20, 82, 74)", "color" => "rgb(255, 255, 255)"}
    expect(find_button("Make the series").style(*colours.keys)).to eq colours
  end

  it "begins with a mail for whoever is added: they choose a password, and the link works once" do
    sign_in_as("Marit Hauge")
    visit "/people"
    click_button "Add a person"
    fill_in "Name", with: "Ines Torvald"
    fill_in "Mail address", with: "jo(e@x.example"
    keep "Add" # and not "Add a person" behind the dialog
    expect(page).to have_content "is not a mail address such as"
    fill_in "Mail address", with: "ines@skerrybuoy.example"
    expect_accessible within: ".v-dialog"
    keep "Add"
    expect(page).to have_content "Ines Torvald is added, and mailed a link to sign in."
    expect(page).to have_content "cannot sign in yet"
    link = mailed_link("ines@skerrybuoy.example")
    in_another_browser do
      visit link
      expect(page).to have_content "Welcome, Ines Torvald."
      expect_accessible
      type "short"
      click_button "Sign in"
      expect(page).to have_content "at least 12 characters"
      find_field("Password, at least 12 characters").set("password1234")
      click_button "Sign in"
      expect(page).to have_content "too common"
      find_field("Password, at least 12 characters").set(choice)
      click_button "Sign in"
      expect(page).to have_css "header.bar"
      visit link
      expect(page).to have_content "not good any more"
    end
  end

  it "is offered again to who cannot sign in yet, and to all of an import" do
    guestless = key
    UseCases::People.new(clock: clock).add(
      id: guestless, name: "Lars Ekeli", email: "lars@skerrybuoy.example", time_zone: "Europe/Oslo"
    )
    sign_in_as("Marit Hauge")
    visit "/people"
    click_button "Invite Lars Ekeli to sign in"
    expect(page).to have_content "mailed a link to sign in, good for three days"
    expect(mailed_link("lars@skerrybuoy.example")).to start_with "/sign-in/"
    click_button "Import"
    pick_file "name,mail address\nTomás Reis,tomas@skerrybuoy.example\n\nSunniva Dahl,sunniva(at)skerrybuoy\n", ".csv"
    expect(page).to have_field "Mail them a link to sign in", checked: true, visible: :all
    expect(page).to have_content "1 person can be imported, 1 cannot yet."
    click_button "Correct line 4"
    find(".mend").fill_in "Mail address", with: "wen@skerrybuoy.example"
    click_button "Import 2 people"
    expect(page).to have_css ".mend .v-input--error", text: "is here already"
    find(".mend").fill_in "Mail address", with: "sunniva@skerrybuoy.example"
    click_button "Import 2 people"
    expect(page).to have_content "2 people imported"
    expect(Records::Person.where(email: "sunniva@skerrybuoy.example").pluck(:name)).to eq ["Sunniva Dahl"]
    expect(mailed_link("tomas@skerrybuoy.example")).to start_with "/sign-in/"
  end

  it "comes back by mail to who has forgotten their password, and says the same to who was never here" do
    visit "/"
    click_button "Forgotten your password?"
    expect_accessible
    fill_in "Mail address", with: "nobody@skerrybuoy.example"
    click_button "Mail me a link"
    said = find("[role=status]").text
    expect(said).to eq "If this address is known here, a link is on its way to it."
    fill_in "Mail address", with: "wen@skerrybuoy.example"
    click_button "Mail me a link"
    link = mailed_link("wen@skerrybuoy.example")
    expect(find("[role=status]").text).to eq said
    expect(Records::Mail.where("reason like 'sign-in:%'").count).to eq 1
    click_button "Back to signing in"
    visit link
    expect(page).to have_content "Choose a new password, Wen Halloran."
    find_field("Password, at least 12 characters").set(choice)
    click_button "Sign in"
    expect(page).to have_css "header.bar"
    Capybara.reset_sessions!
    visit "/"
    fill_in "Mail address", with: "wen@skerrybuoy.example"
    fill_in "Password", with: choice
    click_button "Sign in"
    expect(page).to have_css "header.bar"
  end

  it "can be ended elsewhere, one by one, all at once, or by another password; at the next request" do
    in_another_browser { sign_in_as("Wen Halloran") }
    sign_in_as("Wen Halloran")
    visit "/people/#{wen}"
    expect(page).to have_content "Where you are signed in"
    expect(page).to have_content "this browser"
    expect_accessible
    find("button", text: "Sign out", exact_text: true).click
    expect(page).to have_no_button "Sign out everywhere else"
    expect_signed_out_elsewhere { sign_in_as("Wen Halloran") }
    visit "/people/#{wen}"
    click_button "Sign out everywhere else"
    expect(page).to have_no_button "Sign out everywhere else"
    expect_signed_out_elsewhere { sign_in_as("Wen Halloran") }
    click_button "Change password"
    expect_accessible within: ".v-dialog"
    fill_in "Your password now", with: "not this one"
    fill_in "New password, at least 12 characters", with: choice
    click_button "Save"
    expect(page).to have_content "This is not your password."
    fill_in "Your password now", with: Stage::PASSWORD
    click_button "Save"
    expect(page).to have_content "Your password is changed. Everywhere else you are signed out."
    expect_signed_out_elsewhere
    visit "/actions"
    expect(page).to have_css "header.bar"
    visit "/"
    sign_out
    expect(Records::Session.where(ended_at: nil).count).to eq 0
  end

  it "comes with links in mails, which one has made new when one has gone astray" do
    week = series(marit, {required: wen}, start: "#{today + 3}T09:30")
    invite(week, marit)
    before = Loading::AnswerLink.path(week, wen)
    sign_in_as("Wen Halloran")
    visit "/people/#{wen}"
    click_button "New links"
    dialog.click_button "Cancel"
    click_button "New links"
    expect(dialog).to have_content "stop working"
    expect_accessible(within: ".v-dialog")
    keep "Make them new"
    expect(page).to have_content "A mail with the new ones is on its way."
    visit before
    expect(page).to have_content "This link is no longer valid"
    mail = within_s(15) do
      Records::Mail.where("reason like 'links:%'").find_by(recipient: "wen@skerrybuoy.example",
        state: %w[sent delivered])
    end
    visit Mail.new(mail.source).text_part.decoded[%r{/answer/\S+}]
    expect(page).to have_content "Monday mooring round"
  end

  it "keeps what was typed for who typed it: the next at the same browser neither sees it nor sends it" do
    id = series(marit, {required: [marit, wen]}, start: "#{today + 1}T09:30", chair_id: wen)
    meeting = meeting_ids(id).first
    state(meeting, marit, "in_session")
    sign_in_as("Marit Hauge")
    visit "/meetings/#{meeting}"
    find(".entry textarea").set("Half a sentence of Marit's")
    page.execute_script(<<~JS, meeting, marit, key)
      const [meetingId, by, id] = arguments
      const deed = { kind: 'add', lineId: id, line: { id, kind: 'note', text: 'A line of Marit’s' } }
      localStorage.setItem(`left-over:unsent:${id}`, JSON.stringify({ key: id, meetingId, by, deed }))
    JS
    visit "about:blank" # an answer still on its way would bring the cookie back
    page.driver.browser.cookies.clear
    sign_in_as("Wen Halloran")
    visit "/meetings/#{meeting}"
    expect(find(".entry textarea").value).to eq ""
    expect(page).to have_no_content "A line of Marit"
    visit "about:blank" # an answer still on its way would bring the cookie back
    page.driver.browser.cookies.clear
    sign_in_as("Marit Hauge")
    visit "/meetings/#{meeting}"
    expect(find(".entry textarea").value).to eq "Half a sentence of Marit's"
    eventually { Records::Line.exists?(text: "A line of Marit’s", author_id: marit) }
    expect(Records::Line.where(author_id: wen)).to be_empty
  end

  it "shows who looks after people what was set aside, and tries it again" do
    UseCases::Outbox.new(clock: clock).put(
      reason: "odd", to: Records::Person.find(wen), subject: "Round on Monday", text: "x", html: "<p>x</p>"
    )
    Records::Mail.update_all(state: "set_aside", tries: 3, last_error: "ArgumentError: bad value")
    sign_in_as("Marit Hauge")
    visit "/people"
    expect(page).to have_content "Round on Monday"
    expect(page).to have_content "ArgumentError: bad value"
    expect_accessible
    click_button "Try all again"
    expect(page).to have_no_content "Set aside"
    eventually { Records::Mail.find_by(reason: "odd").state.match?(/sent|delivered/) }
  end
end
