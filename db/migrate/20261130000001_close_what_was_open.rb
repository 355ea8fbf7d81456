# Private links that can be renewed, hosts who agree first, tries counted by account and network, and links to choose a
# password made by the worker.
class CloseWhatWasOpen < ActiveRecord::Migration[7.2]
  ID = {limit: 36, collation: "ascii_bin"}.freeze

  def up
    add_column :people, :link_serial, :integer, null: false, default: 0
    add_column :open_hours_hosts, :agreed_at, :datetime, precision: 6
    add_column :open_hours_hosts, :calendars_out, :text, size: :long, collation: "utf8mb4_bin"
    execute "update open_hours_hosts set agreed_at = created_at"
    give_calendars_to_hosts
    make_tries
    make_link_wishes
    read_more_kinds
    add_column :made_keys, :content, :string, limit: 64, collation: "ascii_bin"
    make_minutes_pdfs
    add_column :poll_people, :said_name, :string, limit: 120
    add_column :poll_people, :unproved, :boolean, null: false, default: false
    # Some stayed with the series they were handed over from: the worker gathers all anew.
    execute "delete from search_texts"
  end

  def down
    remove_check_constraint :file_readings, name: "file_readings_kind"
    execute "delete from file_readings where kind in ('series','actions')"
    add_check_constraint :file_readings, "`kind` in ('invitation','people')", name: "file_readings_kind"
    remove_columns :poll_people, :said_name, :unproved
    remove_column :made_keys, :content
    drop_table :minutes_pdfs
    drop_table :link_wishes
    drop_table :tries
    remove_columns :open_hours_hosts, :agreed_at, :calendars_out
    remove_column :people, :link_serial
  end

  private

  # Series and actions in files are read by the worker, as invitations and people are.
  def read_more_kinds
    remove_check_constraint :file_readings, name: "file_readings_kind"
    add_check_constraint :file_readings, "`kind` in ('invitation','people','series','actions')",
      name: "file_readings_kind"
  end

  # Which calendars are left out is each host's own. The old column stays, for whoever goes back.
  def give_calendars_to_hosts
    change_column_null :open_hours, :calendars_out, true
    select_rows("select id, calendars_out from open_hours where calendars_out <> '[]'").each do |id, text|
      JSON.parse(text).group_by { |one| select_value("select person_id from calendars where id = #{quote(one)}") }
        .each do |person_id, ids|
          execute "update open_hours_hosts set calendars_out = #{quote(JSON.generate(ids))} " \
            "where open_hours_id = #{quote(id)} and person_id = #{quote(person_id)}"
        end
    end
  end

  # One file for each version, under its key.
  def make_minutes_pdfs
    create_table :minutes_pdfs, id: {type: :string, **ID} do |t|
      t.binary :bytes, size: :medium, null: false
      t.timestamps precision: 6
    end
  end

  # `id` says what is tried, and from where, without saying it to who reads the table.
  def make_tries
    create_table :tries, id: {type: :string, limit: 64, collation: "ascii_bin"} do |t|
      t.integer :number, null: false
      t.datetime :wait_until, precision: 6
      t.datetime :expires_at, precision: 6, null: false
      t.index :expires_at
    end
  end

  def make_link_wishes
    create_table :link_wishes, id: {type: :string, **ID} do |t|
      t.string :email, limit: 254, null: false, collation: "utf8mb4_bin"
      t.string :state, limit: 20, null: false, default: "waiting", collation: "ascii_bin"
      t.string :claim, **ID
      t.datetime :leased_until, precision: 6
      t.integer :tries, null: false, default: 0
      t.string :error, limit: 500
      t.timestamps precision: 6
      t.index %i[state created_at]
      t.index :claim
    end
  end
end
